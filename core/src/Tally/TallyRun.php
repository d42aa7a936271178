<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Intake\DelimitedReader;
use NineTally\Core\Intake\NotUsable;
use NineTally\Core\Intake\ReadingLedger;
use NineTally\Core\Matching\CellComparison;
use NineTally\Core\Matching\PartitionMatch;
use NineTally\Core\Matching\RowSpill;
use NineTally\Core\Matching\RowTally;
use NineTally\Core\Matching\Unmatched;
use NineTally\Core\Matching\UnmatchedSpool;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\UnusablePlan;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;

/**
 * One run of a plan on two deliveries: read both sides into partitions by key, match each partition, merge the findings
 * into source order. Memory is bounded by the largest partition, whatever the size of the deliveries.
 */
final class TallyRun
{
    /** About one partition per this many bytes of the source; a partition in memory is some three times larger. */
    private const PARTITION_BYTES = 4 * 1024 * 1024;

    private const SHARE_READING = 0.55;

    private const SHARE_MATCHING = 0.35;

    private readonly UnmatchedSpool $spool;

    private readonly RowTally $rows;

    private readonly int $partitions;

    /** @var array{source: int, target: int} */
    private array $read = ['source' => 0, 'target' => 0];

    /** @var array{source: int, target: int} */
    private array $partlyBlank = ['source' => 0, 'target' => 0];

    /**
     * @param  array{source: int, target: int}  $bytes  sizes of the deliveries
     * @param  string  $workspace  an empty folder, removed by the caller
     *
     * @throws UnusablePlan
     */
    public function __construct(
        private readonly Plan $plan,
        private readonly DelimitedReader $source,
        private readonly DelimitedReader $target,
        private readonly array $bytes,
        private readonly string $workspace,
        private readonly Progress $progress = new SilentProgress,
        ?int $partitions = null,
    ) {
        $plan->mustFit($source->columns, $target->columns);
        $this->spool = new UnmatchedSpool($workspace);
        $this->rows = new RowTally;
        $this->partitions = $partitions ?? max(1, min(256, intdiv(max($bytes), self::PARTITION_BYTES) + 1));
    }

    /**
     * Findings of the source first, in the order of its delivery, then those that only the target has, in the order of its own.
     *
     * @return \Generator<int, RowFinding, mixed, Summary> the Summary when all have been taken
     *
     * @throws NotUsable
     * @throws TallyCancelled
     * @throws UnbalancedTally before the first finding, if the sums do not add up
     */
    public function findings(): \Generator
    {
        [$sourceRows, $sourceLedger] = $this->readSide(Side::Source, $this->source);
        [$targetRows, $targetLedger] = $this->readSide(Side::Target, $this->target);
        $comparison = new CellComparison(
            $this->source->columns->positionsOf($this->plan->pairedNames(Side::Source)),
            $this->target->columns->positionsOf($this->plan->pairedNames(Side::Target)),
            new CauseCatalogue,
        );
        $this->match(new PartitionMatch($sourceRows, $targetRows, $comparison, $this->spool));
        $source = SideCounts::from(Side::Source, $sourceLedger, $this->rows, $this->partlyBlank['source']);
        $target = SideCounts::from(Side::Target, $targetLedger, $this->rows, $this->partlyBlank['target']);
        (new Balance($source, $target))->mustHold();

        $patterns = new PatternCounter;
        yield from $this->merge($source, $target, $patterns);
        $columns = [];
        foreach ($comparison->counts() as $position => $counts) {
            $columns[] = ['pair' => $this->plan->columnPairs[$position], ...$counts];
        }

        return new Summary($source, $target, $columns, $patterns->patterns());
    }

    /** @return array{RowSpill, ReadingLedger} */
    private function readSide(Side $side, DelimitedReader $reader): array
    {
        $folder = "{$this->workspace}/{$side->value}";
        @mkdir($folder, 0700);
        $spill = new RowSpill($folder, $this->partitions);
        $keyPositions = $reader->columns->positionsOf($this->plan->keyNames($side));
        $refused = 0;
        foreach ($reader->records(fn(int $bytes) => $this->reportReading($side, $bytes)) as $record) {
            $this->read[$side->value]++;
            if ($record instanceof RefusedRecord) {
                $refused++;
                $this->spool->add("{$side->value}-refused", new Unmatched($record->number, RowClass::Refused, $side, '', 1, null, null, refused: $record));

                continue;
            }
            $keyCells = [];
            foreach ($keyPositions as $position) {
                $keyCells[] = $record->cells[$position];
            }
            $key = KeyTuple::of($keyCells);
            if ($key->isBlank()) {
                $this->setAsideUnkeyed($side, $record, $key);

                continue;
            }
            $this->partlyBlank[$side->value] += $key->isPartlyBlank() ? 1 : 0;
            $spill->add($key->bytes(), $record);
        }
        $spill->finish();

        return [$spill, new ReadingLedger($this->read[$side->value], $refused, $this->read[$side->value] - $refused)];
    }

    private function setAsideUnkeyed(Side $side, Row $record, KeyTuple $key): void
    {
        $this->rows->count($side, RowClass::Unkeyed);
        $row = new RowRecord($record->number, $record->line, $record->cells);
        $this->spool->add("{$side->value}-unkeyed", new Unmatched($record->number, RowClass::Unkeyed, $side, $key->bytes(), 1, $side === Side::Source ? $row : null, $side === Side::Target ? $row : null));
    }

    private function reportReading(Side $side, int $bytes): void
    {
        $done = ($side === Side::Target ? $this->bytes['source'] : 0) + $bytes;
        $this->progress->report(new ProgressReport(Phase::Reading, self::SHARE_READING * min(1.0, $done / max(1, array_sum($this->bytes))), $this->read));
    }

    private function match(PartitionMatch $match): void
    {
        for ($partition = 0; $partition < $this->partitions; $partition++) {
            $match->run($partition, $this->rows);
            $this->progress->report(new ProgressReport(
                Phase::Matching,
                self::SHARE_READING + self::SHARE_MATCHING * ($partition + 1) / $this->partitions,
                $this->read,
                $partition + 1,
                $this->partitions,
                $this->rows->of(Side::Source, RowClass::Agreed),
                $this->rows->of(Side::Source, RowClass::Changed),
            ));
        }
    }

    /** @return \Generator<int, RowFinding> */
    private function merge(SideCounts $source, SideCounts $target, PatternCounter $patterns): \Generator
    {
        $expected = $source->refused + $source->unkeyed + $source->repeated + $source->changed + $source->unmatched
            + $target->refused + $target->unkeyed + $target->repeated + $target->unmatched;
        $sequence = 0;
        $ordinals = new BytesOrdinals;
        foreach ([Side::Source, Side::Target] as $side) {
            foreach ($this->spool->merged("{$side->value}-") as $unmatched) {
                yield $this->placed($unmatched, ++$sequence, $ordinals, $patterns);
                if ($sequence % 1_000 === 0) {
                    $this->progress->report($this->mergingReport($sequence / max(1, $expected)));
                }
            }
        }
        if ($sequence !== $expected) {
            throw UnbalancedTally::inEquation('findings merged = findings counted', $sequence, $expected);
        }
        $this->progress->report($this->mergingReport(1.0));
    }

    private function mergingReport(float $share): ProgressReport
    {
        return new ProgressReport(
            Phase::Merging,
            self::SHARE_READING + self::SHARE_MATCHING + (1 - self::SHARE_READING - self::SHARE_MATCHING) * min(1.0, $share),
            $this->read,
            $this->partitions,
            $this->partitions,
            $this->rows->of(Side::Source, RowClass::Agreed),
            $this->rows->of(Side::Source, RowClass::Changed),
        );
    }

    private function placed(Unmatched $unmatched, int $sequence, BytesOrdinals $ordinals, PatternCounter $patterns): RowFinding
    {
        $cells = array_map(static function (CellFinding $cell) use ($patterns): CellFinding {
            [$number, $ordinal] = $patterns->place($cell);

            return $cell->inPattern($number, $ordinal);
        }, $unmatched->cells);

        return new RowFinding(
            sequence: $sequence,
            ordinal: in_array($unmatched->class, [RowClass::Unkeyed, RowClass::Refused], true) ? $ordinals->next($unmatched) : $unmatched->ordinal,
            class: $unmatched->class,
            side: $unmatched->side,
            key: $unmatched->class === RowClass::Refused ? null : KeyTuple::fromBytes($unmatched->key),
            source: $unmatched->source,
            target: $unmatched->target,
            rowsOfKey: $unmatched->rowsOfKey,
            cells: $cells,
            refused: $unmatched->refused,
        );
    }
}
