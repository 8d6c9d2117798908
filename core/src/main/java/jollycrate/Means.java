package jollycrate;

import jollycrate.app.Descriptions;
import jollycrate.app.Setting;
import jollycrate.check.HttpRequester;
import jollycrate.host.Host;
import jollycrate.secret.Secrets;
import jollycrate.site.Kinds;
import jollycrate.site.Machines;
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
    ServerFoundation foundation,
    Machines machines,
    Sites sites,
    Descriptions descriptions) {

  static Means of(Setting setting, Secrets secrets, Progress progress, Interrupts interrupts) {
    Host host = Host.local();
    Kinds kinds = new Kinds();
    ServerFoundation foundation = new ServerFoundation(host, setting, kinds, secrets);
    Descriptions descriptions = new Descriptions(setting.folder(), secrets::value);
    Machines machines = new Machines(host, secrets, descriptions::host);
    return new Means(
        setting,
        secrets,
        progress,
        interrupts,
        host,
        kinds,
        foundation,
        machines,
        new Sites(
            machines,
            setting,
            kinds,
            foundation,
            sockets -> new HttpRequester(interrupts::isAsked, sockets)),
        descriptions);
  }
}
