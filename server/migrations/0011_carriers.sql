-- A threaded carrier has no pieces: where it stands is how far it is turned in.
alter table stack add column turned_mm double precision check (turned_mm >= 0);

-- The record of a job says it. The function of 0010 is taken as it stands, with this one value more at every stack.
do $$
declare
  stands text := '(select json_build_array(x.reason, x.by_person, ms(x.at)) from stack_superseded x where x.stack_id = s.id)) order by s.id)';
  now_too text := '(select json_build_array(x.reason, x.by_person, ms(x.at)) from stack_superseded x where x.stack_id = s.id), s.turned_mm) order by s.id)';
  before text := pg_get_functiondef('job_record(text)'::regprocedure);
  after text := replace(before, stands, now_too);
begin
  if after = before then
    raise exception 'job_record is not the one of 0010';
  end if;
  execute after;
end $$;
