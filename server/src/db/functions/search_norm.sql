-- The same without the words that are written twice: as what is typed to find something is read.
create or replace function search_norm(t text) returns text language sql immutable as $$
  select btrim(regexp_replace(regexp_replace(regexp_replace(regexp_replace(regexp_replace(regexp_replace(regexp_replace(
    lower(t),
    '(\d),(\d)', '\1.\2', 'g'),
    '(^|[^0-9])\.(\d)', '\10.\2', 'g'),
    '(\d\.\d*?)0+(?!\d)', '\1', 'g'),
    '\.(?!\d)', ' ', 'g'),
    '[!-,/:-@\[-`{-~]', ' ', 'g'),
    '(^|\s)-+|-+(\s|$)', ' ', 'g'),
    '\s+', ' ', 'g'))
$$;
