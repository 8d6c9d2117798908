package jollycrate.check;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.Map;
import org.apache.hc.client5.http.DnsResolver;
import org.apache.hc.client5.http.SystemDefaultDnsResolver;

/**
 * Names of which it is said where they lead; the others lead to where the system says.
 *
 * @param addresses by name
 */
record KnownNames(Map<String, String> addresses) implements DnsResolver {
  @Override
  public InetAddress[] resolve(String host) throws UnknownHostException {
    return SystemDefaultDnsResolver.INSTANCE.resolve(led(host));
  }

  @Override
  public String resolveCanonicalHostname(String host) throws UnknownHostException {
    return SystemDefaultDnsResolver.INSTANCE.resolveCanonicalHostname(led(host));
  }

  /** One name may lead to another of them. */
  private String led(String host) {
    String at = addresses.getOrDefault(host, host);
    return addresses.getOrDefault(at, at);
  }
}
