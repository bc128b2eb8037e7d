-- Digest of a row. Columns without a value do not count, so that a table can be given another column later.
create or replace function row_digest(r jsonb) returns text language sql immutable as $$
  select encode(sha256(convert_to(jsonb_strip_nulls(r)::text, 'UTF8')), 'hex')
$$;
