<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Cause\FormCombination;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Landing\LeftOutLines;
use NineTally\Core\Matching\Spill\SortedRuns;
use NineTally\Core\Matching\Spill\SortedRunWriter;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Value\Decimal;

/**
 * Control totals over rows as they were delivered, and what the steps of each side did to them: each delivered row is held against what is
 * left of it, so that left-out rows, those that steps made or put together, and those that they altered are shares as all others are.
 * What was delivered at a place (d) and what is prepared of it (p) are amounts with their groups.
 *
 * @phpstan-type Here array{d: list<array{Decimal, string}>, p: list<array{Decimal, string}>}
 */
final class DeliveredTotals
{
    private const BYTES = 8_388_608;

    /** Between the parts of what stands at a place, and between the cells of a group there: no text holds these bytes. */
    private const PART = "\xFD";

    private const CELL = "\xFB";

    /** @var array<string, LeftOutLines> by side */
    private array $leftOut = [];

    /**
     * @param  Sides<Reader>  $readers  when their steps have run
     * @param  string  $folder  for what is put aside
     * @param  callable(): void  $onProgress  called now and then; whoever wants to end it throws there
     */
    public function __construct(
        private readonly Plan $plan,
        private readonly Sides $readers,
        private readonly DeliveredSource $source,
        private readonly FormCombination $forms,
        private readonly string $folder,
        private readonly mixed $onProgress,
    ) {}

    /**
     * What a side has by group before its steps, where it has any; what these did is added to the shares.
     *
     * @param  TotalColumns  $prepared  how the prepared rows of the side are taken into the total
     * @return array<string, GroupFigures>|null null where nothing was prepared: then delivered and prepared are the same
     */
    public function ofSide(ControlTotal $total, int $number, Side $side, TotalColumns $prepared, ShareCounts $shares): ?array
    {
        $reader = $this->readers->of($side);
        if (! $reader instanceof PreparedReader) {
            return null;
        }
        $stack = $this->source->delivered($side);
        $delivered = new TotalColumns($total, $side, $this->plan, Columns::named($side->value, $stack->columns), $this->forms);
        $groups = [];
        $rows = (function () use ($number, $stack, $delivered, &$groups): \Generator {
            foreach ($stack->records() as $packedPlace => $record) {
                if (! $record instanceof RefusedRecord) {
                    $written = implode(KeyTuple::SEPARATOR, array_map(static fn(int $at): string => $record[$at], $delivered->groupPlaces));
                    $group = $delivered->meets($written);
                    $figures = $groups[$number][$group] ?? SideTotals::open($groups, $number, $group, $delivered->labelsOf($written));
                    $this->take($figures, $delivered, $record);
                    yield $packedPlace => $record;
                }
            }
        })();
        $this->share(
            $number,
            $side,
            $reader,
            $reader->keepsOrder()
                ? $this->together($rows, $delivered, $this->left($reader), $prepared)
                : $this->sorted($rows, $delivered, $this->left($reader), $prepared, "{$this->folder}/delivered-{$number}-{$side->value}"),
            $shares,
        );

        return $groups[$number] ?? [];
    }

    /** @return \Generator<int, list<string>> the prepared rows, by packed place */
    private function left(PreparedReader $reader): \Generator
    {
        foreach ($reader->batches() as $batch) {
            ($this->onProgress)();
            if (! $batch instanceof Batch) {
                continue;
            }
            foreach (explode(Batch::ROW_END, $batch->rows) as $nth => $row) {
                yield $reader->place($batch->firstLine + $nth)->packed() => explode(Batch::CELL_END, $row);
            }
        }
    }

    /**
     * Both in the order of the delivery, so that they are read beside each other. Where one row is left, and nothing that the total looks
     * at has changed in it, nothing is read as a number.
     *
     * @param  \Generator<int, list<string>>  $rows  by packed place
     * @param  \Generator<int, list<string>>  $left
     * @return \Generator<int, Here>
     */
    private function together(\Generator $rows, TotalColumns $delivered, \Generator $left, TotalColumns $prepared): \Generator
    {
        [$ofDelivered, $ofPrepared] = [$delivered->places(), $prepared->places()];
        foreach ($rows as $place => $record) {
            while ($left->valid() && $left->key() < $place) {
                yield $left->key() => ['d' => [], 'p' => [self::entry($prepared, $left->current())]];
                $left->next();
            }
            $cells = [];
            while ($left->valid() && $left->key() === $place) {
                $cells[] = $left->current();
                $left->next();
            }
            if (count($cells) !== 1 || self::at($ofDelivered, $record) !== self::at($ofPrepared, $cells[0])) {
                yield $place => [
                    'd' => [self::entry($delivered, $record)],
                    'p' => array_map(static fn(array $row): array => self::entry($prepared, $row), $cells),
                ];
            }
        }
        for (; $left->valid(); $left->next()) {
            yield $left->key() => ['d' => [], 'p' => [self::entry($prepared, $left->current())]];
        }
    }

    /**
     * @param  list<string>  $cells
     * @return array{Decimal, string}
     */
    private static function entry(TotalColumns $columns, array $cells): array
    {
        return [$columns->amount($cells) ?? Decimal::zero(), $columns->group($cells)];
    }

    /**
     * @param  list<int>  $places
     * @param  list<string>  $cells
     * @return list<string>
     */
    private static function at(array $places, array $cells): array
    {
        return array_map(static fn(int $place): string => $cells[$place], $places);
    }

    /**
     * The same where steps changed the order of the rows: both are sorted by place, on disk.
     *
     * @param  \Generator<int, list<string>>  $rows  by packed place
     * @param  \Generator<int, list<string>>  $left
     * @return \Generator<int, Here>
     */
    private function sorted(\Generator $rows, TotalColumns $delivered, \Generator $left, TotalColumns $prepared, string $path): \Generator
    {
        $file = new SortedRunWriter($path);
        $held = $runs = [];
        /** @var list<array{string, \Generator<int, list<string>>, TotalColumns}> $both */
        $both = [['d', $rows, $delivered], ['p', $left, $prepared]];
        foreach ($both as [$what, $side, $columns]) {
            foreach ($side as $place => $cells) {
                [$amount, $group] = self::entry($columns, $cells);
                $group = strtr($group, [KeyTuple::SEPARATOR => self::CELL]);
                // Several rows may have become of one: the lines of a place are told apart by their number.
                $held[sprintf('%016x%s%08x', $place, $what, count($held))] = implode(self::PART, [$what, $amount->canonical(), $group]);
                if (count($held) * 160 > self::BYTES) {
                    $runs[] = ['path' => $path, ...$file->write($held)];
                    $held = [];
                }
            }
        }
        $runs[] = ['path' => $path, ...$file->write($held)];
        $file->finish();

        return self::places(SortedRuns::merged($runs));
    }

    /** @param list<string> $cells */
    private function take(GroupFigures $figures, TotalColumns $columns, array $cells): void
    {
        $figures->rows++;
        if ($columns->place === null) {
            return;
        }
        $cell = $cells[$columns->place];
        if ($columns->reading->isBlank($cell)) {
            $figures->blanks++;

            return;
        }
        $isSummed = $columns->total->measure === Measure::Sum;
        // Most sums are of numbers that need no reading.
        if (! $isSummed || $columns->isPlain && ! $columns->hasUnit() && $figures->sum->addPlain($cell)) {
            return;
        }
        $amount = $columns->amount($cells);
        match (true) {
            $amount !== null => $figures->sum->add($amount),
            $columns->lacksUnit($cells) => $figures->unvalued++,
            default => $figures->unread++,
        };
    }

    /** @param \Generator<int, Here> $places */
    private function share(int $number, Side $side, PreparedReader $reader, \Generator $places, ShareCounts $shares): void
    {
        $hasGroups = $reader->ledger->condensed() > 0;
        foreach ($places as $place => $here) {
            $name = match (true) {
                count($here['p']) > 1 || $here['d'] === [] => 'made',
                $here['p'] !== [] => $hasGroups ? 'condensed' : 'altered',
                $this->isLeftOut($side, $reader, $place) => 'left-out',
                default => 'condensed',
            };
            $this->add($number, $side, "{$name} {$side->value}", $here, $shares);
        }
    }

    private function isLeftOut(Side $side, PreparedReader $reader, int $place): bool
    {
        $this->leftOut[$side->value] ??= LeftOutLines::of($reader, $this->onProgress);

        return $this->leftOut[$side->value]->stepOf(RecordPlace::ofPacked($place)) !== null;
    }

    /**
     * @param  \Generator<string, string>  $lines
     * @return \Generator<int, Here>
     */
    private static function places(\Generator $lines): \Generator
    {
        $place = null;
        $here = ['d' => [], 'p' => []];
        foreach ($lines as $key => $value) {
            $at = (int) hexdec(substr($key, 0, 16));
            if ($place !== null && $at !== $place) {
                yield $place => $here;
                $here = ['d' => [], 'p' => []];
            }
            $place = $at;
            [$what, $amount, $group] = explode(self::PART, $value);
            $here[$what === 'd' ? 'd' : 'p'][] = [Decimal::fromCanonical($amount), strtr($group, [self::CELL => KeyTuple::SEPARATOR])];
        }
        if ($place !== null) {
            yield $place => $here;
        }
    }

    /** @param Here $here */
    private function add(int $number, Side $side, string $name, array $here, ShareCounts $shares): void
    {
        if ($here['d'] == $here['p']) {
            return;
        }
        // On the way from the source's delivery to the target's, the steps of the target are gone through backwards.
        [$from, $to] = $side === Side::Source ? [$here['d'], $here['p']] : [$here['p'], $here['d']];
        $byGroup = [];
        $all = Decimal::zero();
        foreach ([[$from, true], [$to, false]] as [$entries, $isFrom]) {
            foreach ($entries as [$amount, $group]) {
                $taken = $isFrom ? $amount : $amount->negated();
                $byGroup[$group] = ($byGroup[$group] ?? Decimal::zero())->minus($taken) ?? Decimal::zero();
                $all = $all->minus($taken) ?? Decimal::zero();
            }
        }
        foreach ($byGroup as $group => $moved) {
            $moved->isZero() || $shares->add($number, (string) $group, $name, $moved);
        }
        $all->isZero() || $shares->add($number, ShareCounts::ALL, $name, $all);
    }
}
