-- Evidence is never changed, deleted or emptied.
create or replace function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception 'rows of % are evidence: superseded, never changed or deleted', tg_table_name
    using errcode = 'restrict_violation';
end $$;
