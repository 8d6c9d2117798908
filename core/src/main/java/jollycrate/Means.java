package jollycrate;

import jollycrate.app.Descriptions;
import jollycrate.app.Setting;
import jollycrate.build.Asking;
import jollycrate.check.HttpRequester;
import jollycrate.host.Host;
import jollycrate.host.Time;
import jollycrate.secret.Secrets;
import jollycrate.site.Instances;
import jollycrate.site.Kinds;
import jollycrate.site.Machines;
import jollycrate.site.PracticeHosts;
import jollycrate.site.ServerFoundation;
import jollycrate.site.Sites;
import jollycrate.watch.Interrupts;
import jollycrate.watch.Progress;

/** What everything in a run of the program shares. */
record Means(
    Setting setting,
    Secrets secrets,
    Progress progress,
    Interrupts interrupts,
    Host host,
    Kinds kinds,
    Instances instances,
    ServerFoundation foundation,
    PracticeHosts practice,
    Machines machines,
    Sites sites,
    Descriptions descriptions) {

  /** How builds and repositories are asked. */
  Asking asking() {
    return new Asking(progress::waitingFor, interrupts::isAsked);
  }

  static Means of(Setting setting, Secrets secrets, Progress progress, Interrupts interrupts) {
    Host host = Host.local();
    Kinds kinds = new Kinds();
    Instances instances = new Instances(setting, secrets);
    Descriptions descriptions = new Descriptions(setting.folder(), secrets::value);
    PracticeHosts practice = new PracticeHosts(host, setting, Time.system());
    Machines machines = new Machines(host, secrets, practice, descriptions::host);
    ServerFoundation foundation = new ServerFoundation(host, setting, kinds, instances, machines);
    return new Means(
        setting,
        secrets,
        progress,
        interrupts,
        host,
        kinds,
        instances,
        foundation,
        practice,
        machines,
        new Sites(
            machines,
            setting,
            kinds,
            instances,
            secrets,
            (sockets, trust) -> new HttpRequester(interrupts::isAsked, sockets, trust)),
        descriptions);
  }
}
