-- Brings the lines up to the newest events, some at a time. Returns how many events are still to come.
create or replace function search_catch_up(most integer) returns bigint language plpgsql as $$
declare
  done bigint;
  newest bigint;
  upto bigint;
  j text;
  n integer := 0;
begin
  -- one at a time: whoever comes second leaves it to the first
  if not pg_try_advisory_xact_lock(hashtext('moray search ' || current_schema())) then
    return (select coalesce(max(id), 0) from event) - coalesce((select event from search_state), 0);
  end if;
  insert into search_state (event) values (0) on conflict do nothing;
  select event into done from search_state;
  select coalesce(max(id), 0) into newest from event;
  if done > newest then
    -- another history than the one that the lines were made of
    truncate search_line;
    done := 0;
  end if;
  upto := done;
  while upto < newest and n < most loop
    upto := least(newest, upto + 50);
    -- a job is made once, with the last of its events
    for j in select distinct e.job_id from event e where e.id > upto - 50 and e.id > done and e.id <= upto and e.job_id is not null
      and not exists (select 1 from event l where l.job_id = e.job_id and l.id > upto and l.id <= newest)
    loop
      perform search_again(j);
      n := n + 1;
    end loop;
    if exists (select 1 from event e where e.id > upto - 50 and e.id > done and e.id <= upto and e.kind in ('sheet', 'shop', 'foreign')) then
      perform search_others();
    end if;
  end loop;
  update search_state set event = upto;
  return newest - upto;
end $$;
