<?php

declare(strict_types=1);

namespace App\Adapters\Database;

use Illuminate\Database\Connection;

/** The tables of a run's findings, which no screen sees until its tally is entered. */
final readonly class FindingTables
{
    /** By kind of file. */
    private const COLUMNS = [
        'cells' =>
            'tally_id,sequence,row_sequence,pattern_number,pattern_ordinal,pair_position,class,cause,source_value,target_value,identity,'.
            'difference,relative_difference',
        'places' => 'tally_id,part,"group",findings,rows',
    ];

    /** Beside those of the columns of the key: three of the rows, three of the cells. */
    private const INDEXES = 6;

    private const BYTES_A_TIME = 4_194_304;

    public function __construct(private Connection $database) {}

    public function nextTallyId(): int
    {
        return DatabaseRow::all($this->database, "SELECT nextval('tallies_id_seq') AS id")[0]->int('id');
    }

    public function open(int $tallyId): void
    {
        $this->database->statement('SELECT open_findings(?)', [$tallyId]);
    }

    /**
     * Within the transaction of the connection: a file is loaded once or not at all.
     *
     * @param  string  $name  as {@see FindingCopies::names()} has it
     */
    public function load(int $tallyId, string $folder, string $name): void
    {
        [$kind] = explode('-', $name);
        $columns = self::COLUMNS[$kind] ?? implode(',', ['tally_id', 'class_ordinal', 'identity', ...RowFindingColumns::names()]);
        $table = $kind === 'places' ? 'group_places' : sprintf('%s_findings_%d', $kind === 'rows' ? 'row' : 'cell', $tallyId);
        $file = @fopen("{$folder}/{$name}", 'rb') ?: throw new \RuntimeException('A working file is gone.');
        try {
            $rest = '';
            while (($block = (string) fread($file, self::BYTES_A_TIME)) !== '') {
                $end = strrpos($block, "\n");
                if ($end === false) {
                    $rest .= $block;

                    continue;
                }
                // Many lines at once: one at a time is felt where there are millions.
                CopyText::into($this->database, $table, $columns, [$rest.substr($block, 0, $end + 1)]);
                $rest = substr($block, $end + 1);
            }
        } finally {
            fclose($file);
        }
    }

    /** @return list<int> */
    public function indexes(int $keyColumns): array
    {
        return range(1, self::INDEXES + $keyColumns);
    }

    /** Builds one of them, unless it is there. */
    public function index(int $tallyId, int $keyColumns, int $place): void
    {
        $this->database->statement('SELECT index_findings(?, ?, ?)', [$tallyId, $keyColumns, $place]);
    }

    /** From here on nobody writes to them. */
    public function seal(int $tallyId): void
    {
        $this->database->statement('SELECT seal_findings(?)', [$tallyId]);
    }

    /** Within the transaction that enters the tally. */
    public function attach(int $tallyId): void
    {
        $this->database->statement('SELECT attach_findings(?)', [$tallyId]);
    }

    public function drop(int $tallyId): void
    {
        $this->database->statement('SELECT drop_findings(?)', [$tallyId]);
    }

    /** Drops tables that belong to no tally, and to no run that goes on and may still enter one. */
    public function dropForgotten(): void
    {
        $forgotten = DatabaseRow::all(
            $this->database,
            <<<'SQL'
            SELECT substring(relname FROM '\d+$')::bigint AS id FROM pg_class
            WHERE relkind = 'r' AND relname ~ '^row_findings_\d+$'
            EXCEPT SELECT id FROM tallies
            EXCEPT SELECT entering_tally_id FROM runs WHERE state NOT IN ('done', 'failed', 'cancelled')
            SQL,
        );
        foreach ($forgotten as $table) {
            $this->drop($table->int('id'));
        }
    }
}
