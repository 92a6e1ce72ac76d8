package yarrowmark.server.bench;

/** Something about a seat changed; told to the bench's readers once the change is stored. */
record SeatChanged(long seatId) {}
