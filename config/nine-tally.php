<?php

declare(strict_types=1);

/** Every setting of the application, with unit and default. None is changed while it serves. */
return [
    // Names under which others reach it, as regular expressions, and addresses of the servers in front of it whose word is taken for who
    // asks and whether by TLS; with commas between them. Nothing else is believed.
    'hosts' => array_map(
        static fn(string $host): string => '^'.preg_quote($host).'$',
        array_filter(array_map(trim(...), explode(',', (string) env('NINE_TALLY_HOSTS', '')))),
    ),
    'proxies' => array_values(array_filter(array_map(trim(...), explode(',', (string) env('NINE_TALLY_PROXIES', ''))))),

    // Bytes; a longer record is refused. Changed by whoever installs.
    'row_limit' => (int) env('NINE_TALLY_ROW_LIMIT', 16 * 1024 * 1024),

    // Seconds between two reports of how far somebody's answer or workbook is.
    'seconds_between_reports' => 0.5,

    // Workers that there are for runs; set by bin/start. Of one run never more than twice as many tasks wait, so that runs take turns.
    'workers' => max(1, (int) env('NINE_TALLY_WORKERS', 2)),

    // Bytes of a side below which a run is done by one worker alone.
    'small_bytes' => (int) env('NINE_TALLY_SMALL_BYTES', 24 * 1024 * 1024),

    // Bytes that a worker should stay below while it compares. The same on every worker: it decides how a run is divided.
    'memory' => 256 * 1024 * 1024,

    // Seconds that a prepared side is kept after its last use; it can be made again from its delivery.
    'keep_prepared_seconds' => 14 * 24 * 3_600,

    // Databases that deliveries may be queried from, as JSON: {"name": {"host", "port", "database", "user", "password", "migration"}}. Each
    // belongs to the migration that it names, and is offered in no other. The user has to be one that may do nothing but read what is meant
    // to be read: rights alone keep a query from the rest. Changed by whoever installs; nobody else can name a database.
    'sources' => json_decode((string) env('NINE_TALLY_SOURCES', '{}'), true) ?: [],

    // The folder below which files of SQLite are drawn from; no other file of this machine is. Changed by whoever installs.
    'source_files' => (string) env('NINE_TALLY_SOURCE_FILES', storage_path('sources')),

    // Computers of the inner network that feeds may be drawn from, as name:port or address:port, with commas between them; all others of it
    // are refused, also when a name of the outer one leads there. Changed by whoever installs.
    'inner_hosts' => array_values(
        array_filter(
            array_map(
                trim(...),
                explode(
                    ',',
                    env('NINE_TALLY_INNER_HOSTS', '').','.preg_replace('#^http://#', '', (string) env('NINE_TALLY_DEMO_FEED', '')),
                ),
            ),
        ),
    ),

    // The stand-in for a web feed that the demo draws from; the start command makes it known.
    'demo_feed' => (string) env('NINE_TALLY_DEMO_FEED', ''),

    // Bytes that the snapshot of a query may have.
    'snapshot_bytes' => 64 * 1024 * 1024 * 1024,

    // Rows read to show the beginning of a delivery, and to count a key before the whole delivery has been counted.
    'preview_rows' => 12,
    'sample_rows' => 2_000,

    // Findings shown in the report for each class and pattern.
    'report_findings' => 10,

    // A service that vouches for the time of seals (RFC 3161): its address, and the path of the certificates (PEM) that its answers are
    // held against. None is asked where there is no address. Changed by whoever installs.
    'time_stamps' => (string) env('NINE_TALLY_TIME_STAMPS', ''),
    'time_stamp_authority' => (string) env('NINE_TALLY_TIME_STAMP_AUTHORITY', ''),

    // Path of the browser that prints reports: Chromium, or its shell without windows, which starts in a third of the time.
    'chromium' => env(
        'NINE_TALLY_CHROMIUM',
        is_file('/usr/bin/chromium-headless-shell') ? '/usr/bin/chromium-headless-shell' : '/usr/bin/chromium',
    ),
];
