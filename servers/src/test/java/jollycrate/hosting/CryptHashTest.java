package jollycrate.hosting;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class CryptHashTest {
  private static final String STORED =
      "$6$rounds=100000$saltsaltsalt1234$erDtw6NNvfD5pignAb/J6Kxhaa3Jyj0d6k609UVSxLHFaMjRPuCzv1B6Y."
          + "4/DsY7/9xiG/XghMkUPBRg/Vqxl/";

  private final Hashing hashing = new CryptHash();

  @Test
  void aHashIsKnownByWhatItIsMadeOf() {
    assertThat(hashing.verifies(STORED, "freewheel & hub ü")).isTrue();
    assertThat(hashing.verifies(STORED, "freewheel & hub u")).isFalse();
    assertThat(hashing.verifies("freewheel", "freewheel")).isFalse();
    assertThat(hashing.isOne("$6$salt$short")).isFalse();
  }

  @Test
  void eachHasASaltOfItsOwn() {
    String one = hashing.of("tandem");
    assertThat(hashing.isOne(one)).isTrue();
    assertThat(hashing.verifies(one, "tandem")).isTrue();
    assertThat(hashing.of("tandem")).isNotEqualTo(one);
  }
}
