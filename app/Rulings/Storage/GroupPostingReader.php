<?php

declare(strict_types=1);

namespace App\Rulings\Storage;

use App\Adapters\Database\CopyText;
use App\Adapters\Database\DatabaseRow;
use Illuminate\Database\Connection;
use NineTally\Core\Ruling\GroupPostingBlock;

/** In which rows the findings of groups stand, as the database keeps it: a part of the tally at a time, for there may be very many. */
final readonly class GroupPostingReader
{
    public function __construct(private Connection $database) {}

    /**
     * @param  list<string>  $groups
     * @param  bool  $withRows  whether rows are asked for, or only how many findings each stretch has
     * @return \Generator<int, array<string, array{GroupPostingBlock, int}>> part
     *     => group => its places there, and how many of its findings stand in parts before
     */
    public function read(int $tallyId, array $groups, bool $withRows): \Generator
    {
        $passed = array_fill_keys($groups, 0);
        $part = [];
        $number = 0;
        foreach ($this->database->cursor(sprintf(<<<'SQL'
            SELECT part, "group", encode(findings, 'hex') AS findings, %s AS rows
            FROM group_places WHERE tally_id = ? AND "group" = ANY(?::text[]) ORDER BY part
            SQL, $withRows ? "encode(rows, 'hex')" : "''"), [$tallyId, CopyText::list($groups)]) as $fields) {
            $row = DatabaseRow::of($fields);
            if ($row->int('part') !== $number && $part !== []) {
                yield $number => $part;
                $part = [];
            }
            $number = $row->int('part');
            $group = $row->text('group');
            $places = new GroupPostingBlock($number, $row->bytes('findings'), $row->bytes('rows'));
            $part[$group] = [$places, $passed[$group]];
            $passed[$group] += $places->total();
        }
        if ($part !== []) {
            yield $number => $part;
        }
    }
}
