<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * A ruling on half a million findings spent its time in indexes. The members of an act are kept in packs of ten thousand: the table is
 * rewritten, with the same members. Standings have one index for all, and further ones only for what is seldom decided for very many.
 */
return new class () extends Migration {
    public function up(): void
    {
        DB::statement('ALTER TABLE ruling_members RENAME TO single_members');
        DB::statement(<<<'SQL'
            CREATE TABLE ruling_members (
                ruling_id bigint NOT NULL,
                "group" text NOT NULL,
                first bigint NOT NULL,
                sequences bigint[] NOT NULL,
                CONSTRAINT ruling_packs_pkey PRIMARY KEY (ruling_id, "group", first)
            )
            SQL);
        DB::statement(<<<'SQL'
            INSERT INTO ruling_members
            SELECT ruling_id, "group", min(sequence), array_agg(sequence ORDER BY sequence)
            FROM (SELECT *, (row_number() OVER (PARTITION BY ruling_id, "group" ORDER BY sequence) - 1) / 10000 AS pack FROM single_members) numbered
            GROUP BY ruling_id, "group", pack
            SQL);
        DB::statement('DROP TABLE single_members');
        DB::statement('GRANT SELECT, INSERT ON ruling_members TO tally_app');
        DB::statement('DROP INDEX standings_decision');
        DB::statement('DROP INDEX standings_ruling');
        DB::statement("CREATE INDEX standings_marked ON standings (tally_id, decision, \"group\", sequence) WHERE decision <> 'expected'");
        DB::statement("CREATE INDEX standings_asked ON standings (ruling_id) WHERE decision = 'ask'");
    }
};
