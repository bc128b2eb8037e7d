-- What is typed, as a query: every word has to be there, each may go on; `joined` by & for all of them or | for any.
create or replace function search_query(typed text, joined text) returns tsquery language sql immutable as $$
  select to_tsquery('simple', string_agg(format('''%s'':*', replace(w, '-', '')), joined)) from regexp_split_to_table(search_norm(typed), '\s+') w where w <> ''
$$;
