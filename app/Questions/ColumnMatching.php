<?php

declare(strict_types=1);

namespace App\Questions;

use NineTally\Core\Advice\PairProposal;
use NineTally\Core\Advice\PairProposals;
use NineTally\Core\Advice\ValueSketch;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;

/** Which columns of both sides may belong together, by names and by all their values. */
final readonly class ColumnMatching implements Question
{
    /** Enough to know what values are like; more would only take longer. */
    private const MOST_ROWS = 1_000_000;

    /** Of each side: of many columns fewer rows, for it is the values that take time. */
    private const MOST_VALUES = 10_000_000;

    private const ROWS_BETWEEN_REPORTS = 5_000;

    public function __construct(private BothSides $sides) {}

    public function kind(): string
    {
        return 'which-columns-pair';
    }

    public function about(): array
    {
        return $this->sides->about();
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $readers = ['source' => $this->sides->reader($material, Side::Source), 'target' => $this->sides->reader($material, Side::Target)];
        $most = array_map(
            static fn(Reader $reader): int => min(self::MOST_ROWS, intdiv(self::MOST_VALUES, max(1, $reader->columns()->count()))),
            $readers,
        );
        $bytesOf = fn(string $side): int => (int) ($readers[$side]->bytes() *
            min(1.0, $most[$side] / max(1, $this->sides->delivery(Side::from($side))->delivered_count)));
        $total = $bytesOf('source') + $bytesOf('target');
        $sketches = ['source' => [], 'target' => []];
        $before = 0;
        foreach ($readers as $side => $reader) {
            $columns = array_map(static fn(string $name): ValueSketch => new ValueSketch($name), $reader->columns()->names);
            $bytes = $rows = 0;
            foreach ($reader->records(static function (int $read) use (&$bytes): void {
                $bytes = $read;
            }) as $record) {
                if (! $record instanceof Row) {
                    continue;
                }
                foreach ($record->cells as $place => $cell) {
                    $columns[$place]->see($cell);
                }
                if (++$rows === $most[$side]) {
                    break;
                }
                $rows % self::ROWS_BETWEEN_REPORTS === 0 && $onProgress(min($total, $before + $bytes), $total);
            }
            array_map(static fn(ValueSketch $column) => $column->finish(), $columns);
            $sketches[$side] = $columns;
            $before += $bytesOf($side);
        }

        return [
            'proposals' => array_map(
                static fn(PairProposal $proposal): array => $proposal->toArray(),
                (new PairProposals)->of($sketches['source'], $sketches['target']),
            ),
        ];
    }
}
