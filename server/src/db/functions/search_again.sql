-- Makes the lines of a job anew.
create or replace function search_again(the_job text) returns void language plpgsql as $$
declare
  j record;
  head text;
  of_head tsvector;
begin
  delete from search_line where job_id = the_job;
  select x.*, d.name as drive into j from job x join drive_sheet d on d.id = x.sheet_id and d.version = x.sheet_version where x.id = the_job;
  if not found then return; end if;
  head := concat_ws(' ', j.number, j.serial, j.boat, j.owner, j.drive);
  of_head := search_text(head);
  insert into search_line (job_id, kind, ref, text, at, own, words)
    select the_job, x.kind, x.ref, left(x.said, 400), x.at, x.own, x.own || of_head
    from (select l.*, search_text(l.said) as own from search_lines(the_job) l where l.said <> '' offset 0) x
    union all
    select the_job, 'job', '', concat_ws(' · ', head, j.complaint), j.opened_at, of_head || search_text(j.complaint), of_head || search_text(j.complaint);
end $$;
