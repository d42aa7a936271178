<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Links by which somebody without an account reads one report, as it stood when the link was made: until a day, or until it is revoked. */
return new class () extends Migration {
    public function up(): void
    {
        foreach (
            [
                <<<'SQL'
                CREATE TABLE report_links (
                    id bigserial PRIMARY KEY,
                    tally_id bigint NOT NULL REFERENCES tallies,
                    token_hash text NOT NULL UNIQUE,
                    html_digest text NOT NULL,
                    ends_at timestamptz NOT NULL,
                    user_id bigint NOT NULL REFERENCES users,
                    created_at timestamptz NOT NULL
                )
                SQL,
                'CREATE INDEX ON report_links (tally_id, id)',
                <<<'SQL'
                CREATE TABLE revoked_links (
                    report_link_id bigint PRIMARY KEY REFERENCES report_links,
                    user_id bigint NOT NULL REFERENCES users,
                    created_at timestamptz NOT NULL
                )
                SQL,
                <<<'SQL'
                CREATE TABLE link_openings (
                    report_link_id bigint PRIMARY KEY REFERENCES report_links,
                    openings bigint NOT NULL,
                    last_at timestamptz NOT NULL
                )
                SQL,
                'GRANT SELECT, INSERT ON report_links, revoked_links TO tally_app',
                'GRANT SELECT, INSERT, UPDATE ON link_openings TO tally_app',
                'GRANT USAGE ON SEQUENCE report_links_id_seq TO tally_app',
            ] as $statement
        ) {
            DB::statement($statement);
        }
    }
};
