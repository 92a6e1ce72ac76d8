-- Runs that a device had finished when its session was ended without it. They are kept as they were delivered until the
-- reviewer takes them in or leaves them out.
create table late_run (
  id bigint not null auto_increment primary key,
  seat_id bigint not null,
  delivery_key char(36) not null,
  body_hash char(64) not null,
  run mediumtext not null,
  arrived_at timestamp(3) not null,
  unique key late_run_delivery (seat_id, delivery_key),
  constraint late_run_seat foreign key (seat_id) references seat (id)
);
