package spokes;

/** A repair that a customer asked for. */
record Ticket(long id, String bike, String fault, String mechanic, boolean done) {}
