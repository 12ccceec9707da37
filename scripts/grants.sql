-- What the role the application works under may do. It owns no table: it appends what was entered and signed, it never
-- changes it, and of a job it writes only that it was closed or cancelled. Run as the owner, after every migration.
SELECT 'CREATE ROLE ' || quote_ident(:'app') || ' LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE'
WHERE NOT EXISTS (SELECT FROM pg_roles WHERE rolname = :'app') \gexec
SELECT 'ALTER ROLE ' || quote_ident(:'app') || ' PASSWORD ' || quote_literal(:'password') \gexec
REVOKE ALL ON ALL TABLES IN SCHEMA public FROM :"app";
GRANT USAGE ON SCHEMA public TO :"app";
GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO :"app";
GRANT USAGE, SELECT ON ALL SEQUENCES IN SCHEMA public TO :"app";
REVOKE UPDATE, DELETE ON jobs_entry, jobs_signature, jobs_photograph, reports_issuedrecord, plant_linechange,
    catalogue_cataloguechange, instruments_instrumentchange, plant_linelook, plant_lookslip, keep_postponement, journal_journalline FROM :"app";
REVOKE UPDATE, DELETE ON jobs_job FROM :"app";
GRANT UPDATE (closed_at, cancelled_by, cancelled_because, taken_over_at, last_number, head, head_at) ON jobs_job TO :"app";
-- Who may do what is the owner's to say.
REVOKE INSERT, UPDATE, DELETE ON accounts_membership FROM :"app";
REVOKE INSERT, UPDATE, DELETE ON django_migrations FROM :"app";
