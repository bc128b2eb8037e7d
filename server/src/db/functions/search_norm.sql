-- A text as it is searched: small letters, no signs but points in numbers and hyphens within words, no zeros behind a point (`.40` and `0,4` are the same).
-- Each step is tried only where there is something for it to do: years of lines go through here after an upgrade.
create or replace function search_norm(t text) returns text language plpgsql immutable as $$
declare
  n text := lower(t);
begin
  if n like '%,%' then n := regexp_replace(n, '(\d),(\d)', '\1.\2', 'g'); end if;
  n := translate(n, '!"#$%&''()*+,/:;<=>?@[\]^_`{|}~·±×–—“”’', '                                         ');
  if n like '%.%' then
    if n like '.%' or n like '% .%' then n := regexp_replace(n, '(^|[^0-9])\.(\d)', '\10.\2', 'g'); end if;
    if n like '%.%0%' then n := regexp_replace(n, '(\d\.\d*?)0+(?!\d)', '\1', 'g'); end if;
    n := regexp_replace(n, '\.(?!\d)', ' ', 'g');
  end if;
  if n like '%-%' then n := regexp_replace(n, '(^|\s)-+|-+(\s|$)', ' ', 'g'); end if;
  return n;
end $$;
