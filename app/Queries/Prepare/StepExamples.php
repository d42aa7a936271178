<?php

declare(strict_types=1);

namespace App\Queries\Prepare;

use App\Adapters\Deliveries\DeliveryReader;
use NineTally\Core\Row\RecordPlace;

/**
 * Rows as they come into a step beside what becomes of each. A delivered row may be several by now, so the rows are numbered on their way
 * into the step: by its place nobody could tell which of them became which.
 */
final class StepExamples
{
    private const MOST = 20;

    /** @var array<int, list<list<string>>> by the number of the row before: what it became */
    private array $made = [];

    /** @var array<int, list<int>> by the number of the row that stays: those that went into it */
    private array $into = [];

    /** @var array<int, true> */
    private array $gone = [];

    /** @param list<array{int, list<string>}> $before packed place and cells */
    public function __construct(private readonly array $before) {}

    /** @return \Generator<int, list<string>> the rows under their numbers instead of their packed places */
    public function numbered(): \Generator
    {
        foreach ($this->before as $number => [, $cells]) {
            yield $number => $cells;
        }
    }

    /** A row went into another. */
    public function condensed(int $into, int $number): void
    {
        $this->into[$into][] = $number;
        $this->gone[$number] = true;
    }

    /**
     * @param  list<string>  $cells
     * @return int the packed place of the row that it was made of
     */
    public function made(int $number, array $cells): int
    {
        $this->made[$number][] = $cells;

        return $this->before[$number][0];
    }

    /**
     * Rows that the step changes first.
     *
     * @param  list<string>  $columnsBefore
     * @param  list<string>  $columnsAfter
     * @return array{columnsBefore: list<string>, columnsAfter: list<string>, rows: list<array<string, mixed>>}
     */
    public function shown(array $columnsBefore, array $columnsAfter): array
    {
        $changed = $same = [];
        foreach ($this->before as $number => [, $cells]) {
            if (isset($this->gone[$number])) {
                continue;
            }
            if (($this->made[$number] ?? []) === [$cells] && ! isset($this->into[$number])) {
                count($same) < self::MOST && ($same[] = $number);
            } else {
                $changed[] = $number;
            }
            if (count($changed) === self::MOST) {
                break;
            }
        }

        return [
            'columnsBefore' => $columnsBefore,
            'columnsAfter' => $columnsAfter,
            'rows' => array_map($this->example(...), array_slice([...$changed, ...$same], 0, self::MOST)),
        ];
    }

    /** @return array<string, mixed> */
    private function example(int $number): array
    {
        $others = $this->into[$number] ?? [];

        return [
            ...$this->row($number),
            'with' => array_map($this->row(...), array_slice($others, 0, self::MOST)),
            'withRows' => count($others),
            'after' => array_map(self::shortened(...), array_slice($this->made[$number] ?? [], 0, self::MOST)),
        ];
    }

    /** @return array{part: int, line: int, before: list<string>} */
    private function row(int $number): array
    {
        [$packedPlace, $cells] = $this->before[$number];
        $place = RecordPlace::ofPacked($packedPlace);

        return ['part' => $place->part, 'line' => $place->line, 'before' => self::shortened($cells)];
    }

    /**
     * @param  list<string>  $cells
     * @return list<string>
     */
    private static function shortened(array $cells): array
    {
        return array_map(DeliveryReader::shortened(...), $cells);
    }
}
