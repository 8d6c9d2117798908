package jollycrate.maven;

import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import org.eclipse.aether.transfer.AbstractTransferListener;
import org.eclipse.aether.transfer.TransferCancelledException;
import org.eclipse.aether.transfer.TransferEvent;

/** What is fetched just now is told, and stopped when somebody wants that. */
final class Fetching extends AbstractTransferListener {
  private final Consumer<String> doing;
  private final BooleanSupplier stopped;

  Fetching(Consumer<String> doing, BooleanSupplier stopped) {
    this.doing = doing;
    this.stopped = stopped;
  }

  @Override
  public void transferInitiated(TransferEvent event) throws TransferCancelledException {
    mustGoOn();
    String name = event.getResource().getResourceName();
    if (!name.endsWith(".sha1") && !name.endsWith(".md5")) {
      doing.accept(
          name.substring(name.lastIndexOf('/') + 1)
              + " from the Maven repository "
              + event.getResource().getRepositoryId());
    }
  }

  @Override
  public void transferProgressed(TransferEvent event) throws TransferCancelledException {
    mustGoOn();
  }

  private void mustGoOn() throws TransferCancelledException {
    if (stopped.getAsBoolean()) {
      throw new TransferCancelledException();
    }
  }
}
