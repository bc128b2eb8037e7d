-- A line of the drawer may hold pieces that are made thinner before they go in: laminated ones are peeled, blanks are ground. `cut` says by how much at
-- a time and how thin at most: {"kind": "laminated", "layerMm", "minMm"} or {"kind": "ground", "stepMm", "minMm"}.
alter table shim_line add column cut jsonb check (cut ->> 'kind' in ('laminated', 'ground') and (cut ->> 'minMm')::float8 > 0
  and (cut ->> 'minMm')::float8 <= thickness_mm and coalesce((cut ->> 'layerMm')::float8, (cut ->> 'stepMm')::float8) > 0);
-- Two lines of one thickness at one place may differ by what can be made of them.
drop index shim_line_once;
create unique index shim_line_once on shim_line (place, round(thickness_mm::numeric, 6), coalesce(cut, 'null'::jsonb));

-- A piece that was made thinner belongs to this case from then on, whatever line it came from.
alter table stack_piece add column thinned boolean not null default false check (not thinned or line_id is not null);

-- A signed acceptance: whoever accepted had said the code of his name on that device.
alter table acceptance add column signed boolean not null default false;

-- The record of a job has both. The function of 0013 is taken as it stands, with these two more.
do $$
declare
  before text := pg_get_functiondef('job_record(text)'::regprocedure);
  piece text := 'json_build_array(case when sp.line_id is not null then ''d'' || sp.line_id else ''c'' || coalesce(sp.found_piece_id, sp.id) end, sp.thickness_mm, sp.text)';
  with_thinned text := 'case when sp.thinned then json_build_array(''c'' || sp.id, sp.thickness_mm, sp.text, 1) else json_build_array(case when sp.line_id is not null then ''d'' || sp.line_id else ''c'' || coalesce(sp.found_piece_id, sp.id) end, sp.thickness_mm, sp.text) end';
  accepted text := 'json_build_array(a.reason, a.by_person, ms(a.at))';
  with_signed text := 'case when a.signed then json_build_array(a.reason, a.by_person, ms(a.at), 1) else json_build_array(a.reason, a.by_person, ms(a.at)) end';
  pieces text := replace(before, piece, with_thinned);
  after text := replace(pieces, accepted, with_signed);
begin
  if pieces = before or after = pieces then
    raise exception 'job_record is not the one of 0013';
  end if;
  execute after;
end $$;
