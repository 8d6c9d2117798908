package jollycrate.pack;

import jollycrate.artifact.ZipArchive;
import jollycrate.artifact.ZipMember;

/** What becomes of the content of an entry. */
sealed interface Content {
  /** Ready to be written. */
  record Ready(int method, long crc, long size, byte[] data) implements Content {}

  /** Stands compressed in another archive. */
  record Elsewhere(ZipArchive archive, ZipMember member) implements Content {}

  /** Did not change: the whole entry stands in the artifact that is about to be replaced. */
  record Standing(ZipMember member) implements Content {}

  /** Too large to be held. */
  record Large() implements Content {}
}
