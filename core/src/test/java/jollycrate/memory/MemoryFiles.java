package jollycrate.memory;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import jollycrate.file.Digests;
import jollycrate.host.AbsentException;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.Facts;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;

/** The files of a machine in memory; whoever changes them may be killed half-way. */
abstract class MemoryFiles implements HostFiles {
  private static final Access OWN = new Access("rwxr-x---", "anna", "anna");

  /** Something at a path; null bytes for a folder. */
  private record Node(byte[] bytes, Access access, long stamp) {}

  private final TreeMap<Path, Node> nodes = new TreeMap<>();
  private long lastStamp;

  MemoryFiles() {
    nodes.put(Path.of("/"), new Node(null, OWN, 0));
  }

  /** Somewhere in a change: here a process may be killed, or the change may fail. */
  abstract void point();

  /** Before something that needs further space on the disk. */
  abstract void needsSpace();

  /** Before something is read. */
  abstract void reads();

  /** Changes that the server makes: never a reason to be killed. */
  public void quietly(Path path, String text) {
    nodes.put(path, new Node(text.getBytes(), OWN.with("rw-r-----"), ++lastStamp));
  }

  public void quietFolder(Path path) {
    nodes.putIfAbsent(path, new Node(null, OWN, ++lastStamp));
  }

  public void quietlyDelete(Path tree) {
    nodes.keySet().removeIf(path -> path.startsWith(tree));
  }

  public void quietlyAppend(Path path, String text) {
    String old = nodes.containsKey(path) ? text(path) : "";
    quietly(path, old + text);
  }

  public String text(Path path) {
    return new String(nodes.get(path).bytes());
  }

  public boolean exists(Path path) {
    return nodes.containsKey(path);
  }

  public long stamp(Path path) {
    return nodes.get(path).stamp();
  }

  public List<Path> children(Path folder) {
    return nodes.keySet().stream().filter(path -> folder.equals(path.getParent())).toList();
  }

  /** Everything below a folder but some, as comparable text. */
  public Map<String, String> snapshot(Path folder, List<Path> but) {
    Map<String, String> snapshot = new TreeMap<>();
    nodes.forEach(
        (path, node) -> {
          if (path.startsWith(folder) && but.stream().noneMatch(path::startsWith)) {
            String content = node.bytes() == null ? "folder" : Digests.of(node.bytes());
            snapshot.put(path.toString(), node.access() + " " + content);
          }
        });
    return snapshot;
  }

  @Override
  public List<Facts> facts(List<Path> paths) {
    reads();
    return paths.stream().map(this::factsOf).toList();
  }

  private Facts factsOf(Path path) {
    Node node = nodes.get(path);
    if (node == null) {
      return Facts.absent(path);
    }
    Facts.Type type = node.bytes() == null ? Facts.Type.FOLDER : Facts.Type.FILE;
    long size = node.bytes() == null ? 0 : node.bytes().length;
    return new Facts(path, type, size, node.access(), Instant.ofEpochMilli(node.stamp()), "");
  }

  @Override
  public List<Path> list(Path folder) {
    reads();
    return children(folder);
  }

  @Override
  public String digest(Path file) {
    reads();
    if (!nodes.containsKey(file)) {
      throw new AbsentException("read", file);
    }
    return Digests.of(nodes.get(file).bytes());
  }

  @Override
  public byte[] read(Path file, long offset, int most) {
    reads();
    Node node = nodes.get(file);
    if (node == null || node.bytes() == null) {
      return new byte[0];
    }
    int from = (int) Math.min(offset, node.bytes().length);
    return Arrays.copyOfRange(
        node.bytes(), from, (int) Math.min(node.bytes().length, (long) from + most));
  }

  @Override
  public void put(Path file, Content content, Access access) {
    needFolder(file);
    needsSpace();
    byte[] bytes;
    try (InputStream in = content.open()) {
      bytes = in.readAllBytes();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    point();
    Path beside = HostFiles.beside(file);
    nodes.put(beside, new Node(Arrays.copyOf(bytes, bytes.length / 2), access, ++lastStamp));
    point();
    nodes.remove(beside);
    nodes.put(file, new Node(bytes, access, ++lastStamp));
    point();
  }

  private void needFolder(Path path) {
    if (!nodes.containsKey(path.getParent()) || nodes.get(path.getParent()).bytes() != null) {
      throw new HostException("Cannot write '" + path + "': no such folder");
    }
  }

  @Override
  public void copy(Path from, Path to) {
    put(to, Content.of(nodes.get(from).bytes()), nodes.get(from).access());
  }

  @Override
  public void write(Path file, long offset, byte[] bytes) {
    Node old = nodes.get(file);
    if (offset + bytes.length > old.bytes().length) {
      needsSpace();
    }
    point();
    nodes.put(file, over(old, offset, bytes, bytes.length / 2));
    point();
    nodes.put(file, over(old, offset, bytes, bytes.length));
    point();
  }

  private Node over(Node old, long offset, byte[] bytes, int count) {
    int size = Math.max(old.bytes().length, (int) offset + count);
    byte[] all = Arrays.copyOf(old.bytes(), size);
    System.arraycopy(bytes, 0, all, (int) offset, count);
    return new Node(all, old.access(), ++lastStamp);
  }

  @Override
  public void touch(Path file) {
    point();
    Node node = nodes.get(file);
    nodes.put(file, new Node(node.bytes(), node.access(), ++lastStamp));
    point();
  }

  @Override
  public Path real(Path path) {
    return path;
  }

  @Override
  public void append(Path file, byte[] bytes) {
    byte[] old = nodes.get(file).bytes();
    Access access = nodes.get(file).access();
    needsSpace();
    point();
    nodes.put(file, new Node(joined(old, bytes, bytes.length / 2), access, ++lastStamp));
    point();
    nodes.put(file, new Node(joined(old, bytes, bytes.length), access, ++lastStamp));
    point();
  }

  private static byte[] joined(byte[] old, byte[] more, int count) {
    byte[] all = Arrays.copyOf(old, old.length + count);
    System.arraycopy(more, 0, all, old.length, count);
    return all;
  }

  @Override
  public void makeFolder(Path folder, Access access) {
    needFolder(folder);
    needsSpace();
    point();
    nodes.put(folder, new Node(null, access, ++lastStamp));
    point();
  }

  @Override
  public void move(Path from, Path to) {
    point();
    nodes.put(to, nodes.remove(from));
    point();
  }

  @Override
  public void delete(Path path) {
    if (!children(path).isEmpty()) {
      throw new HostException("Cannot delete '" + path + "': it is not empty");
    }
    point();
    nodes.remove(path);
    point();
  }

  @Override
  public long free(Path folder) {
    return Long.MAX_VALUE;
  }

  @Override
  public boolean writable(Path folder) {
    return true;
  }
}
