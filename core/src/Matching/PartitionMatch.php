<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;

/**
 * Brings together the rows of one partition that have the same key.
 *
 * Holds one row per key of the target and a count per key of the source; the rows themselves stream by. A key that stands
 * in a million rows costs no more than any other.
 */
final readonly class PartitionMatch
{
    public function __construct(private RowSpill $source, private RowSpill $target, private CellComparison $comparison, private UnmatchedSpool $spool) {}

    /** Writes what did not agree into the spool's streams "source-N" and "target-N", and counts every row. */
    public function run(int $partition, RowTally $tally): void
    {
        $sourceCounts = [];
        foreach ($this->source->rows($partition) as $row) {
            // A key such as "12" becomes an integer as an array key; in front of a letter it stays what it is.
            $key = 'k'.$row['key'];
            $sourceCounts[$key] = ($sourceCounts[$key] ?? 0) + 1;
        }
        $targetCounts = $targetRows = [];
        foreach ($this->target->rows($partition) as $row) {
            $key = 'k'.$row['key'];
            $targetCounts[$key] = ($targetCounts[$key] ?? 0) + 1;
            if ($targetCounts[$key] === 1 && ($sourceCounts[$key] ?? 0) === 1) {
                $targetRows[$key] = $row;
            }
        }
        $this->passSource($partition, $tally, $sourceCounts, $targetCounts, $targetRows);
        $this->passTarget($partition, $tally, $sourceCounts, $targetCounts);
    }

    /**
     * @param  array<string, int>  $sourceCounts
     * @param  array<string, int>  $targetCounts
     * @param  array<string, array{number: int, line: int, key: string, cells: string}>  $targetRows
     */
    private function passSource(int $partition, RowTally $tally, array $sourceCounts, array $targetCounts, array $targetRows): void
    {
        $stream = sprintf('source-%03d', $partition);
        $ordinals = [];
        foreach ($this->source->rows($partition) as $row) {
            $key = 'k'.$row['key'];
            $rowsOfKey = ['source' => $sourceCounts[$key] ?? 0, 'target' => $targetCounts[$key] ?? 0];
            if ($rowsOfKey['source'] === 1 && $rowsOfKey['target'] === 1) {
                $this->meet($stream, $tally, $row, $targetRows[$key]);

                continue;
            }
            $class = $rowsOfKey['target'] === 0 && $rowsOfKey['source'] === 1 ? RowClass::Missing : RowClass::Repeated;
            $ordinal = $ordinals[$key] = ($ordinals[$key] ?? 0) + 1;
            $tally->count(Side::Source, $class);
            $tally->countRepeatedOnOneSideOnly(Side::Source, $class, $ordinal, $rowsOfKey);
            $this->spool->add($stream, new Unmatched($row['number'], $class, Side::Source, $row['key'], $ordinal, $this->record($row), null, $rowsOfKey));
        }
        $this->spool->flush($stream);
    }

    /**
     * @param  array{number: int, line: int, key: string, cells: string}  $source
     * @param  array{number: int, line: int, key: string, cells: string}  $target
     */
    private function meet(string $stream, RowTally $tally, array $source, array $target): void
    {
        $cells = $this->comparison->compare(explode(KeyTuple::SEPARATOR, $source['cells']), explode(KeyTuple::SEPARATOR, $target['cells']));
        $class = $cells === [] ? RowClass::Agreed : RowClass::Changed;
        $tally->count(Side::Source, $class);
        $tally->count(Side::Target, $class);
        if ($cells !== []) {
            $this->spool->add($stream, new Unmatched($source['number'], $class, null, $source['key'], 1, $this->record($source), $this->record($target), ['source' => 1, 'target' => 1], $cells));
        }
    }

    /**
     * @param  array<string, int>  $sourceCounts
     * @param  array<string, int>  $targetCounts
     */
    private function passTarget(int $partition, RowTally $tally, array $sourceCounts, array $targetCounts): void
    {
        $stream = sprintf('target-%03d', $partition);
        $ordinals = [];
        foreach ($this->target->rows($partition) as $row) {
            $key = 'k'.$row['key'];
            $rowsOfKey = ['source' => $sourceCounts[$key] ?? 0, 'target' => $targetCounts[$key] ?? 0];
            if ($rowsOfKey['source'] === 1 && $rowsOfKey['target'] === 1) {
                continue;
            }
            $class = $rowsOfKey['source'] === 0 && $rowsOfKey['target'] === 1 ? RowClass::Extra : RowClass::Repeated;
            $ordinal = $ordinals[$key] = ($ordinals[$key] ?? 0) + 1;
            $tally->count(Side::Target, $class);
            $tally->countRepeatedOnOneSideOnly(Side::Target, $class, $ordinal, $rowsOfKey);
            $this->spool->add($stream, new Unmatched($row['number'], $class, Side::Target, $row['key'], $ordinal, null, $this->record($row), $rowsOfKey));
        }
        $this->spool->flush($stream);
    }

    /** @param array{number: int, line: int, key: string, cells: string} $row */
    private function record(array $row): RowRecord
    {
        return new RowRecord($row['number'], $row['line'], explode(KeyTuple::SEPARATOR, $row['cells']));
    }
}
