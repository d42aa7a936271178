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
final readonly class DeliveredTotals
{
    private const BYTES = 8_388_608;

    /** Between the parts of what stands at a place, and between the cells of a group there: no text holds these bytes. */
    private const PART = "\xFD";

    private const CELL = "\xFB";

    /**
     * @param  Sides<Reader>  $readers  when their steps have run
     * @param  string  $folder  for what is put aside
     * @param  callable(): void  $onProgress  called now and then; whoever wants to end it throws there
     */
    public function __construct(
        private Plan $plan,
        private Sides $readers,
        private DeliveredSource $source,
        private FormCombination $forms,
        private string $folder,
        private mixed $onProgress,
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
        $path = "{$this->folder}/delivered-{$number}-{$side->value}";
        $stack = $this->source->delivered($side);
        $delivered = new TotalColumns($total, $side, $this->plan, Columns::named($side->value, $stack->columns), $this->forms);
        $file = new SortedRunWriter($path);
        $groups = $held = $runs = [];
        $put = function (int $place, string $what, ?Decimal $amount, string $group) use (&$held, &$runs, $file, $path): void {
            $value = implode(self::PART, [
                $what,
                ($amount ?? self::nothing())->canonical(),
                strtr($group, [KeyTuple::SEPARATOR => self::CELL]),
            ]);
            // Several rows may have become of one: the lines of a place are told apart by their number.
            $held[sprintf('%016x%s%08x', $place, $what, count($held))] = $value;
            if (count($held) * 160 > self::BYTES) {
                $runs[] = ['path' => $path, ...$file->write($held)];
                $held = [];
            }
        };
        foreach ($stack->records() as $packedPlace => $record) {
            if (! $record instanceof RefusedRecord) {
                $written = implode(KeyTuple::SEPARATOR, array_map(static fn(int $at): string => $record[$at], $delivered->groupPlaces));
                $group = $delivered->meets($written);
                $this->take($groups[$group] ??= new GroupFigures($delivered->labelsOf($written)), $delivered, $record);
                $put($packedPlace, 'd', $delivered->amount($record), $group);
            }
        }
        foreach ($reader->batches() as $batch) {
            ($this->onProgress)();
            if (! $batch instanceof Batch) {
                continue;
            }
            foreach (explode(Batch::ROW_END, $batch->rows) as $nth => $row) {
                $cells = explode(Batch::CELL_END, $row);
                $put($reader->place($batch->firstLine + $nth)->packed(), 'p', $prepared->amount($cells), $prepared->group($cells));
            }
        }
        $runs[] = ['path' => $path, ...$file->write($held)];
        $file->finish();
        $this->share($number, $side, $reader, SortedRuns::merged($runs), $shares);

        return $groups;
    }

    /** @param list<string> $cells */
    private function take(GroupFigures $figures, TotalColumns $columns, array $cells): void
    {
        $figures->rows++;
        if ($columns->place === null) {
            return;
        }
        if ($columns->reading->isBlank($cells[$columns->place])) {
            $figures->blanks++;
        } elseif ($columns->total->measure === Measure::Sum) {
            $amount = $columns->amount($cells);
            match (true) {
                $amount !== null => $figures->sum->add($amount),
                $columns->lacksUnit($cells) => $figures->unvalued++,
                default => $figures->unread++,
            };
        }
    }

    /** @param \Generator<string, string> $lines by place */
    private function share(int $number, Side $side, PreparedReader $reader, \Generator $lines, ShareCounts $shares): void
    {
        $leftOut = LeftOutLines::of($reader, $this->onProgress);
        $hasGroups = $reader->ledger->condensed() > 0;
        foreach (self::places($lines) as $place => $here) {
            $name = match (true) {
                count($here['p']) > 1 => 'made',
                $here['p'] !== [] => $hasGroups ? 'condensed' : 'altered',
                $leftOut->stepOf(RecordPlace::ofPacked($place)) !== null => 'left-out',
                default => 'condensed',
            };
            $this->add($number, $side, "{$name} {$side->value}", $here, $shares);
        }
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
        $all = self::nothing();
        foreach ([[$from, true], [$to, false]] as [$entries, $isFrom]) {
            foreach ($entries as [$amount, $group]) {
                $signed = $isFrom ? $amount->negated() : $amount;
                $byGroup[$group] = ($byGroup[$group] ?? self::nothing())->minus($signed->negated()) ?? self::nothing();
                $all = $all->minus($signed->negated()) ?? self::nothing();
            }
        }
        foreach ($byGroup as $group => $moved) {
            $moved->isZero() || $shares->add($number, (string) $group, $name, $moved);
        }
        $all->isZero() || $shares->add($number, ShareCounts::ALL, $name, $all);
    }

    private static function nothing(): Decimal
    {
        return Decimal::of(false, '0', '', 0);
    }
}
