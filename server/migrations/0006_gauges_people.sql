-- Gauges and people of one's own: added, changed, calibrated, retired. Nothing of it is deleted.
alter table person add column retired boolean not null default false;
alter table person add constraint person_name_once unique (name);

alter table gauge add column kind text;
update gauge set kind = case type
  when 'Pinion-depth gauge' then 'depth-gauge' when 'Plunger dial indicator' then 'plunger-dial' when 'Lever indicator' then 'lever-dial'
  when 'Backlash arm' then 'backlash-arm' when 'Outside micrometer' then 'outside-micrometer' when 'Depth micrometer' then 'depth-micrometer'
  when 'Feeler set' then 'feeler-set' when 'Beam torque wrench' then 'beam-wrench' when 'Click torque wrench' then 'click-wrench'
  when 'Pressure and vacuum pump' then 'pressure-tester' else 'thermometer' end;
alter table gauge alter column kind set not null;
-- what follows from the kind stands in core and not beside it
alter table gauge drop column type, drop column measures, drop column unit, drop column suits;
alter table gauge add column retired boolean not null default false;
alter table gauge add constraint gauge_name_once unique (name);

-- Every calibration, for good: the newest day is the one that counts.
create table gauge_calibration (
  id bigint generated always as identity primary key,
  gauge_id text not null references gauge (id),
  calibrated_on date not null,
  note text not null,
  by_person text references person (id),
  at timestamptz
);
create index gauge_calibration_gauge on gauge_calibration (gauge_id, id);
insert into gauge_calibration (gauge_id, calibrated_on, note) select id, calibrated_on, 'before this list was kept' from gauge;
create trigger gauge_calibration_stays before update or delete on gauge_calibration for each row execute function refuse_change();
create trigger gauge_calibration_whole before truncate on gauge_calibration for each statement execute function refuse_change();
create index event_of_gauge on event (subject, id) where kind = 'gauge';
-- ids of new gauges go on after those that are there
insert into counter (name, last) select 'gauge', count(*) from gauge having count(*) > 0;
