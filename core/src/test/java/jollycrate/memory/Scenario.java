package jollycrate.memory;

import java.util.Optional;
import java.util.function.Consumer;
import jollycrate.app.Ports;
import jollycrate.server.Wish;

/** What is prepared, what is done and killed. */
enum Scenario {
  FIRST_ON_STOPPED(world -> {}, world -> world.deploy("a", World.NEW)),
  FIRST_ON_RUNNING(world -> world.control().start(), world -> world.deploy("a", World.NEW)),
  REPLACE(world -> world.deploy("a", World.OLD), world -> world.deploy("a", World.NEW)),
  REPLACE_BESIDE_ANOTHER(
      world -> {
        world.deploy("b", World.OLD);
        world.deploy("a", World.OLD);
      },
      world -> world.deploy("a", World.NEW)),
  REPLACE_ON_STOPPED(
      world -> {
        world.deploy("a", World.OLD);
        world.control().stop();
      },
      world -> world.deploy("a", World.NEW)),
  REPLACE_WITH_SCRIPT(
      world -> world.deploy("a", World.OLD), world -> world.deployWithScript("a", World.NEW)),
  SCRIPT_THEN_WRONG(
      world -> world.deploy("a", World.OLD), world -> world.deployWithScript("a", "v2 wrong")),
  THROWS(world -> world.deploy("a", World.OLD), world -> world.deploy("a", "v2 throws")),
  HANGS(world -> world.deploy("a", World.OLD), world -> world.deploy("a", "v2 hangs")),
  ANSWERS_WRONGLY(world -> world.deploy("a", World.OLD), world -> world.deploy("a", "v2 wrong")),
  FIRST_THROWS(world -> world.control().start(), world -> world.deploy("a", "v2 throws")),
  ROLL_BACK(
      world -> {
        world.deploy("a", World.OLD);
        world.deploy("a", World.NEW);
      },
      world -> world.rollback(1)),
  STOP_ONE(
      world -> {
        world.deploy("b", World.OLD);
        world.deploy("a", World.OLD);
      },
      world -> world.turn("a", false)),
  START_ONE(
      world -> {
        world.deploy("a", World.OLD);
        world.turn("a", false);
      },
      world -> world.turn("a", true)),
  HARDEN(world -> world.deploy("a", World.OLD), world -> world.overhaul(new Wish.Hardened(true))),
  HARDEN_STOPPED(
      world -> {
        world.deploy("a", World.OLD);
        world.control().stop();
      },
      world -> world.overhaul(new Wish.Hardened(false))),
  ADD_USER(
      world -> world.deploy("a", World.OLD),
      world -> world.overhaul(new Wish.Users(new Wish.Removed("anna")))),
  SPOIL(
      world -> world.deploy("a", World.OLD),
      world ->
          world.overhaul(
              new Wish.AsDescribed(
                  new Ports("", 1, Optional.empty(), Optional.empty(), Optional.empty()),
                  Optional.empty()))),
  UNDEPLOY(world -> world.deploy("a", World.OLD), world -> world.undeploy("a")),
  UNDEPLOY_STOPPED(
      world -> {
        world.deploy("a", World.OLD);
        world.control().stop();
      },
      world -> world.undeploy("a"));

  final Consumer<World> before;
  final Consumer<World> act;

  Scenario(Consumer<World> before, Consumer<World> act) {
    this.before = before;
    this.act = act;
  }
}
