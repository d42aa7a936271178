<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Figures that others published, to be held against the totals of both sides: only added to, the newest of a group stands. */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement(<<<'SQL'
            CREATE TABLE published_figures (
                id bigserial PRIMARY KEY,
                dataset_id bigint NOT NULL REFERENCES datasets,
                total text NOT NULL,
                labels json NOT NULL,
                figure text,
                publisher text NOT NULL,
                user_id bigint NOT NULL REFERENCES users,
                created_at timestamptz NOT NULL
            )
            SQL);
        DB::statement('CREATE INDEX ON published_figures (dataset_id, total)');
        DB::statement('GRANT SELECT, INSERT ON published_figures TO tally_app');
        DB::statement('GRANT USAGE ON SEQUENCE published_figures_id_seq TO tally_app');
    }
};
