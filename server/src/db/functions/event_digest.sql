-- Digest of an event, chained to that of the event before it.
create or replace function event_digest(prior text, e event) returns text language sql stable as $$
  select encode(sha256(convert_to(concat_ws('|', prior, e.id, extract(epoch from e.at), e.by_person, e.kind,
    coalesce(e.job_id, ''), e.subject, e.data::text, coalesce(e.text, ''), coalesce(e.clock_back_s, 0), e.rows), 'UTF8')), 'hex')
$$;
