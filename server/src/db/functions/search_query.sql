-- What is typed, as a query: `joined` by & every word has to be there, by | any; `ends` is `:*` where words may go on behind what was typed.
create or replace function search_query(typed text, joined text, ends text) returns tsquery language sql immutable as $$
  select to_tsquery('simple', string_agg(format('''%s''%s', replace(w, '-', ''), ends), joined)) from regexp_split_to_table(search_norm(typed), '\s+') w where w <> ''
$$;
