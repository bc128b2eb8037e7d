-- The number under which an act was entered: given one after the other under the lock of the unit, it alone says what came first. `at` is when it
-- happened, by the clock of whichever server took it. What an older Moray wrote has no number; there the time decides.
alter table job add column entered integer not null default 0;
alter table reading add column entered integer;
alter table acceptance add column entered integer;
alter table step_done add column entered integer;
alter table grade add column entered integer;
alter table estimate add column entered integer;
alter table approval add column entered integer;
alter table lead_agreement add column entered integer;

-- The last number of a job is counted on at every act, and is no part of what is sealed.
drop trigger job_sealed on job;
create trigger job_sealed after insert or update of number, sheet_id, sheet_version, serial, boat, owner, water, hours, stand, complaint, opened_at, held_reason
  on job for each row execute function seal_row('id', 'state stage waits touched_at route_hash entered');
