import type { Database } from '../src/db/database.ts'

/** Keeps a copy of every table in the schema `demo`, to go back to, and up to which transaction it is true. */
export const KEEP_COPY = `
  create schema demo;
  do $$ declare t text; begin
    for t in select tablename from pg_tables where schemaname = 'public' loop
      execute format('create table demo.%I as table public.%I', t, t);
    end loop;
  end $$;
  create table demo.since (xid bigint not null);
  insert into demo.since values (pg_current_xact_id()::text::bigint)`

/**
 * Puts back what a test has changed, row by row: what was written since goes, what is missing comes again; a table that nobody touched is not
 * touched. Identity columns go on where the demo left them.
 */
export async function goBack(db: Database): Promise<void> {
  await db.script(`
    set session_replication_role = replica;
    do $$
    declare
      t text;
      columns text;
      same text;
      since bigint := (select xid from demo.since);
      back bigint;
    begin
      for t in select tablename from pg_tables where schemaname = 'public' loop
        execute format('delete from public.%I where xmin::text::bigint > $1', t) using since;
        execute format('select (select count(*) from demo.%1$I) - (select count(*) from public.%1$I)', t) into back;
        if back <> 0 then
          select string_agg(format('%I', column_name), ', ') into columns from information_schema.columns
            where table_schema = 'public' and table_name = t and is_generated = 'NEVER';
          select string_agg(format('p.%1$I = d.%1$I', a.attname), ' and ') into same
            from pg_index i join pg_attribute a on a.attrelid = i.indrelid and a.attnum = any (i.indkey)
            where i.indrelid = format('public.%I', t)::regclass and i.indisprimary;
          if same is null then
            raise exception '% has no primary key', t;
          end if;
          execute format(
            'insert into public.%1$I (%2$s) overriding system value select %2$s from demo.%1$I d where not exists (select 1 from public.%1$I p where %3$s)',
            t, columns, same);
        end if;
        if exists (select 1 from information_schema.columns where table_schema = 'public' and table_name = t and is_identity = 'YES') then
          execute format('select setval(%L, (select coalesce(max(id), 0) + 1 from public.%I), false)', pg_get_serial_sequence('public.' || t, 'id'), t);
        end if;
      end loop;
      update demo.since set xid = pg_current_xact_id()::text::bigint;
    end $$;
    set session_replication_role = origin`)
}
