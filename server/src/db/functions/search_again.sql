-- Makes the lines of a job anew.
create or replace function search_again(the_job text) returns void language plpgsql as $$
declare
  j record;
  head text;
begin
  delete from search_line where job_id = the_job;
  select x.*, d.name as drive into j from job x join drive_sheet d on d.id = x.sheet_id and d.version = x.sheet_version where x.id = the_job;
  if not found then return; end if;
  head := concat_ws(' ', j.number, j.serial, j.boat, j.owner, j.drive);
  insert into search_line (job_id, kind, ref, text, at, own, words)
    select the_job, l.kind, l.ref, left(l.said, 400), l.at, to_tsvector('simple', search_text(l.said)), to_tsvector('simple', search_text(concat_ws(' ', l.said, head)))
    from search_lines(the_job) l where l.said <> ''
    union all
    select the_job, 'job', '', concat_ws(' · ', head, j.complaint), j.opened_at, x.words, x.words
    from (select to_tsvector('simple', search_text(concat_ws(' ', head, j.complaint))) as words) x;
end $$;
