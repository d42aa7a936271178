<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Cause\PatternRules\Moved;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Sides;

/**
 * Where the value of a cell went, or came from: another column of the same row, paired or not. What stood there on the other side as well
 * was there before, and has not moved.
 */
final readonly class MovedValues
{
    /** @var array<int, int> position in the source => position in the target of its partner, in a column pair or the key */
    private array $partners;

    /**
     * @param  Sides<Columns>  $columns
     * @param  Sides<list<int>>  $paired  positions of the paired columns, by column pair
     * @param  Sides<list<int>>  $key
     */
    public function __construct(private Sides $columns, private Sides $paired, Sides $key)
    {
        $this->partners = array_combine($paired->source, $paired->target) + array_combine($key->source, $key->target);
    }

    /**
     * @param  array<int, array{string, string}>  $waiting  by column pair: cells without a cause yet
     * @return array<int, string> by column pair: the names of the columns as PatternRules\Moved takes them
     */
    public function of(array $waiting, string $sourceRow, string $targetRow): array
    {
        [$source, $target] = [explode(Batch::CELL_END, $sourceRow), explode(Batch::CELL_END, $targetRow)];
        $moved = [];
        foreach ($waiting as $pair => [$sourceCell, $targetCell]) {
            $went = $this->went($sourceCell, $this->paired->target[$pair], $source, $target);
            $came = $went === null ? $this->came($targetCell, $this->paired->source[$pair], $source) : null;
            if ($went !== null) {
                $moved[$pair] =
                    $this->columns->source->names[$this->paired->source[$pair]].Moved::SEPARATOR.$this->columns->target->names[$went];
            } elseif ($came !== null) {
                $moved[$pair] =
                    $this->columns->source->names[$came].Moved::SEPARATOR.$this->columns->target->names[$this->paired->target[$pair]];
            }
        }

        return $moved;
    }

    /**
     * @param  list<string>  $source
     * @param  list<string>  $target
     */
    private function went(string $value, int $from, array $source, array $target): ?int
    {
        if (mb_strlen($value) < Moved::SHORTEST) {
            return null;
        }
        foreach (array_keys($target, $value, true) as $position) {
            $partner = array_search($position, $this->partners, true);
            if ($position !== $from && ($partner === false || $source[$partner] !== $value)) {
                return $position;
            }
        }

        return null;
    }

    /** @param list<string> $source */
    private function came(string $value, int $to, array $source): ?int
    {
        if (mb_strlen($value) < Moved::SHORTEST) {
            return null;
        }
        foreach (array_keys($source, $value, true) as $position) {
            if ($position !== $to) {
                return $position;
            }
        }

        return null;
    }
}
