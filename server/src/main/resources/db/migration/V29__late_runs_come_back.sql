-- Runs that came for a device after it was cleared away could be reached by nobody: its lane comes back.
update seat set phase = 'STOPPED' where phase = 'CLEARED' and exists (select 1 from late_run l where l.seat_id = seat.id);
