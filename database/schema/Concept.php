<?php

declare(strict_types=1);

namespace Database\Schema;

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * The tables of one concept, with what the role that serves may do to them: it defines nothing, and what is entered once it can neither
 * change nor remove.
 */
abstract class Concept extends Migration
{
    /** @return list<string> statements, in the order in which they can be run */
    abstract protected function definitions(): array;

    /** @return non-empty-array<string, string> by table or view */
    abstract protected function rights(): array;

    /** @return array<string, string> by signature: those who serve may call them, and nobody else */
    protected function functions(): array
    {
        return [];
    }

    public function up(): void
    {
        // An installation that was upgraded has the tables already.
        if (Schema::hasTable(array_key_first($this->rights()))) {
            return;
        }
        foreach ([...$this->definitions(), ...array_values($this->functions())] as $definition) {
            DB::statement($definition);
        }
        foreach ($this->rights() as $table => $rights) {
            DB::statement("GRANT {$rights} ON {$table} TO tally_app");
        }
        foreach ($this->sequences() as $sequence) {
            DB::statement("GRANT USAGE ON SEQUENCE {$sequence} TO tally_app");
        }
        foreach (array_keys($this->functions()) as $function) {
            DB::statement("REVOKE ALL ON FUNCTION {$function} FROM PUBLIC");
            DB::statement("GRANT EXECUTE ON FUNCTION {$function} TO tally_app");
        }
    }

    /** @return list<string> that number the rows of these tables */
    private function sequences(): array
    {
        $tables = implode(', ', array_fill(0, count($this->rights()), '?'));
        /** @var list<object{name: string}> $sequences */
        $sequences = DB::select(<<<SQL
            SELECT sequence.relname AS name FROM pg_class sequence JOIN pg_depend ON objid = sequence.oid AND deptype = 'a'
            WHERE sequence.relkind = 'S' AND refobjid = ANY (ARRAY[{$tables}]::regclass[])
            SQL, array_keys($this->rights()));

        return array_column($sequences, 'name');
    }
}
