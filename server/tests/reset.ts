import type { Database } from '../src/db/database.ts'

/**
 * Keeps a copy of every table in the schema `demo`, to go back to, and writes the function that does: what was written since goes, what is missing
 * comes again, identity columns go on where the demo left them. It is written out table by table, so that the database plans it once.
 */
export const KEEP_COPY = `
  create schema demo;
  create table demo.since (xid bigint not null);
  do $make$
  declare
    t text;
    kept bigint;
    columns text;
    same text;
    goes_on bigint;
    body text := '';
  begin
    for t in select tablename from pg_tables where schemaname = 'public' loop
      execute format('create table demo.%I as table public.%I', t, t);
      execute format('select count(*) from public.%I', t) into kept;
      select string_agg(format('%I', column_name), ', ') into columns from information_schema.columns
        where table_schema = 'public' and table_name = t and is_generated = 'NEVER';
      select string_agg(format('p.%1$I = d.%1$I', a.attname), ' and ') into same
        from pg_index i join pg_attribute a on a.attrelid = i.indrelid and a.attnum = any (i.indkey)
        where i.indrelid = format('public.%I', t)::regclass and i.indisprimary;
      if same is null then
        raise exception '% has no primary key', t;
      end if;
      body := body || format(
        'delete from public.%1$I where xmin::text::bigint > since;
         if (select count(*) from public.%1$I) <> %2$s then
           insert into public.%1$I (%3$s) overriding system value select %3$s from demo.%1$I d where not exists (select 1 from public.%1$I p where %4$s);
         end if;', t, kept, columns, same);
      if exists (select 1 from information_schema.columns where table_schema = 'public' and table_name = t and is_identity = 'YES') then
        execute format('select coalesce(max(id), 0) + 1 from public.%I', t) into goes_on;
        body := body || format('perform setval(%L, %s, false);', pg_get_serial_sequence('public.' || t, 'id'), goes_on);
      end if;
    end loop;
    execute format('create function demo.go_back() returns void language plpgsql as %L',
      'declare since bigint := (select xid from demo.since); begin ' || body || ' update demo.since set xid = pg_current_xact_id()::text::bigint; end');
  end $make$;
  insert into demo.since values (pg_current_xact_id()::text::bigint)`

/** The number that the next transaction gets which writes anything: as long as it is the same, nobody has. */
export async function nextWrite(db: Database): Promise<string> {
  const [row] = await db.query<{ next: string }>(
    'select pg_snapshot_xmax(pg_current_snapshot())::text as next',
  )
  return row!.next
}

/** Puts back what a test has changed. */
export const goBack = (db: Database): Promise<void> =>
  db.script(`
    set session_replication_role = replica;
    select demo.go_back();
    set session_replication_role = origin`)
