package jollycrate.server;

/**
 * A keystore in PKCS#12 (RFC 7292) for a listener that speaks HTTPS.
 *
 * @param certificate {@code sha256:} and the digest of its certificate, in hexadecimal
 * @param told who it is of and until when, as people read it
 */
public record Keystore(byte[] bytes, String password, String certificate, String told) {}
