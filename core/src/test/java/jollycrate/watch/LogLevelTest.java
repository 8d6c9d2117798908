package jollycrate.watch;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Lines as logging libraries write them. */
class LogLevelTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          23-Nov-2026 18:00:01.120 SEVERE [main] org.apache.catalina.core.A.b broke  | ERROR
          2026-11-23T18:00:01.120Z ERROR 4711 --- [main] spokes.Shop : broke         | ERROR
          18:00:01.120 [main] WARN  spokes.Shop -- late                              | WARNING
          Nov 23, 2026 6:00:01 PM spokes.Shop main                                   | NONE
          WARNING: late                                                              | WARNING
          {"time":"18:00","level":"info","message":"open"}                           | NONE
          {"time":"18:00","level":"INFO","message":"open"}                           | INFO
          [INFO] open                                                                | INFO
          FINE: polished                                                             | DETAIL
          2026/11/23 18:00:01 [error] 12#12: *1 connect() failed                     | ERROR
          [2026-11-23T18:00:01.120+0000] 00000021 spokes.Errors W SRVE0274W: Error   | WARNING
          [2026-11-23T18:00:01.120+0000] 00000021 spokes.Shop A CWWKF0011I: ready    | INFO
          java.lang.IllegalStateException: no tyres                                  | ERROR
          Exception in thread "main" java.lang.Error                                 | ERROR
          Error: Could not find or load main class bell.Tower                        | ERROR
          the error.html page, served without INFORMATION                            | NONE
          a mechanic wrote a long ticket about his bicycle and about its chain and its saddle and its bell, and no word of an ERROR | NONE
          """)
  void theLevelStandsNearTheBeginning(String line, LogLevel level) {
    assertThat(LogLevel.of(line)).isEqualTo(level);
  }
}
