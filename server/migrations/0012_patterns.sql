-- The contact pattern as it was seen: a line drawn round the patch on one flank of a gear, at one of a few places round it.
create table pattern_mark (
  id bigint generated always as identity primary key,
  build_id bigint not null references build (id),
  mesh text not null,
  flank text not null check (flank in ('drive', 'coast')),
  place integer not null check (place between 1 and 4),
  outline jsonb not null check (jsonb_typeof(outline) = 'array'),
  note text,
  by_person text not null references person (id),
  at timestamptz not null
);
create index pattern_mark_build on pattern_mark (build_id);
create table pattern_mark_superseded (
  mark_id bigint primary key references pattern_mark (id),
  replaced_by bigint not null unique references pattern_mark (id),
  reason text not null check (reason <> ''),
  by_person text not null references person (id),
  at timestamptz not null
);
-- The one that counts, one for a flank and a place at a time: of two who mark the same the second meets this key.
create table pattern_mark_standing (
  build_id bigint not null references build (id),
  mesh text not null,
  flank text not null,
  place integer not null,
  mark_id bigint not null unique references pattern_mark (id),
  primary key (build_id, mesh, flank, place)
);

create trigger pattern_mark_stays before update or delete on pattern_mark for each row execute function refuse_change();
create trigger pattern_mark_superseded_stays before update or delete on pattern_mark_superseded for each row execute function refuse_change();
create trigger pattern_mark_whole before truncate on pattern_mark for each statement execute function refuse_change();
create trigger pattern_mark_superseded_whole before truncate on pattern_mark_superseded for each statement execute function refuse_change();

-- The record of a job has them with its builds. The function of 0011 is taken as it stands, with this list more.
do $$
declare
  builds text := 'from reading r where r.build_id = b.id)) order by b.number)';
  with_marks text := 'from reading r where r.build_id = b.id), ''patterns'', (select json_agg(json_build_array(m.id, m.mesh, m.flank, m.place, m.outline, m.note, m.by_person, ms(m.at),
     (select json_build_array(x.reason, x.by_person, ms(x.at)) from pattern_mark_superseded x where x.mark_id = m.id)) order by m.id) from pattern_mark m where m.build_id = b.id)) order by b.number)';
  before text := pg_get_functiondef('job_record(text)'::regprocedure);
  after text := replace(before, builds, with_marks);
begin
  if after = before then
    raise exception 'job_record is not the one of 0011';
  end if;
  execute after;
end $$;
