<?php

declare(strict_types=1);

namespace NineTally\Core\Records;

use NineTally\Core\Cause\FormCombination;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\BatchColumns;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * Holds values that must have a record against the records, on each side in its own world, and then the two worlds against each other: what
 * the target lacks, the source may have had. Values are sorted on disk and merged, so that memory is bounded.
 *
 * @phpstan-import-type Counted from CountedValues
 */
final readonly class RecordCheck
{
    /**
     * @param  Sides<Reader>  $rows  when their steps have run
     * @param  string  $folder  of this check alone
     * @param  callable(): void  $onProgress  called now and then; whoever wants to end it throws there
     */
    public function __construct(
        private Plan $plan,
        private Sides $rows,
        private RecordSource $records,
        private FormCombination $forms,
        private string $folder,
        private mixed $onProgress,
    ) {}

    /** @return list<RecordReport> in the order of the plan */
    public function reports(): array
    {
        $reports = [];
        foreach ($this->plan->columnRules->records as $number => $rule) {
            $reports[] = $this->of($rule, "{$this->folder}/records-{$number}");
        }

        return $reports;
    }

    private function of(RequiredRecord $rule, string $path): RecordReport
    {
        $report = new RecordReport($rule);
        $values = [];
        foreach ($this->streams() as $number => $name) {
            $values[$name] = new CountedValues("{$path}-{$number}");
        }
        foreach (Side::cases() as $side) {
            $forms = new ValueForms($rule, $side, $this->plan, $this->forms);
            $stack = $this->records->stack($rule->in, $side);
            $problem = $this->problem($rule, $side, $stack);
            $report->sides[$side->value]['problem'] = $problem;
            $this->putRows($rule, $side, $report, $values, $forms);
            if ($stack !== null && $problem === null) {
                $this->putRecords($rule, $side, $stack, $report, $values, $forms);
            }
        }
        $this->merge($report, array_map(static fn(CountedValues $of): \Generator => $of->all(), $values));
        $report->mustHold();

        return $report;
    }

    /** Why nothing can be said of a side; null where it can. */
    private function problem(RequiredRecord $rule, Side $side, ?PartStack $stack): ?string
    {
        if ($stack === null) {
            return sprintf('Nothing was delivered for "%s". Deliver it, and tally again.', $rule->in);
        }
        $absent = array_diff($rule->recordColumns($side), $stack->columns);

        return $absent === []
            ? null
            : sprintf('"%s" has no column "%s" on this side. Name another one, and tally again.', $rule->in, implode('", "', $absent));
    }

    /** @return list<string> what is held against each other: "across" is the source as the target would write it */
    private function streams(): array
    {
        return ['rows source', 'records source', 'rows target', 'records target', 'rows across', 'records across'];
    }

    /** @param array<string, CountedValues> $values */
    private function putRows(RequiredRecord $rule, Side $side, RecordReport $report, array $values, ValueForms $forms): void
    {
        $reader = $this->rows->of($side);
        $places = $reader->columns()->positionsOf($rule->columnsOf($side));
        $keyPlaces = $reader->columns()->positionsOf($this->plan->keyNames($side));
        $columns = new BatchColumns([...$places, ...$keyPlaces]);
        foreach ($reader->batches() as $batch) {
            ($this->onProgress)();
            if (! $batch instanceof Batch) {
                continue;
            }
            $cells = $columns->of($batch);
            foreach (array_keys($cells[$places[0]]) as $row) {
                $at = static fn(int $place): string => $cells[$place][$row];
                $report->sides[$side->value]['rows']++;
                if (! $this->put("rows {$side->value}", $side, $values, $forms, array_map($at, $places), array_map($at, $keyPlaces))) {
                    $report->sides[$side->value]['blank']++;
                }
            }
        }
    }

    /** @param array<string, CountedValues> $values */
    private function putRecords(
        RequiredRecord $rule,
        Side $side,
        PartStack $stack,
        RecordReport $report,
        array $values,
        ValueForms $forms,
    ): void {
        $places = ColumnIndex::of($stack->columns)->all($rule->recordColumns($side));
        foreach ($stack->records() as $packedPlace => $record) {
            if ($record instanceof RefusedRecord) {
                $report->sides[$side->value]['refused']++;

                continue;
            }
            if ($report->sides[$side->value]['records']++ % 1_000 === 0) {
                ($this->onProgress)();
            }
            $given = array_map(static fn(int $place): string => $record[$place], $places);
            $this->put("records {$side->value}", $side, $values, $forms, $given, [(string) $packedPlace]);
        }
    }

    /**
     * @param  array<string, CountedValues>  $values
     * @param  list<string>  $given
     * @param  list<string>  $first  by which it is found again
     * @return bool whether there is a value
     */
    private function put(string $into, Side $side, array $values, ValueForms $forms, array $given, array $first): bool
    {
        $canonical = $forms->of($given);
        if (implode('', $canonical) === '') {
            return false;
        }
        $values[$into]->add($canonical, $given, $first);
        if ($side === Side::Source) {
            $values[str_replace('source', 'across', $into)]->add($forms->across($given), [], []);
        }

        return true;
    }

    /** @param array<string, \Generator<string, Counted>> $streams by what they are of */
    private function merge(RecordReport $report, array $streams): void
    {
        while (($live = array_filter($streams, static fn(\Generator $stream): bool => $stream->valid())) !== []) {
            $keys = array_map(static fn(\Generator $stream): string => $stream->key(), $live);
            $key = array_reduce(
                $keys,
                static fn(?string $least, string $one): string => $least === null || strcmp($one, $least) < 0 ? $one : $least,
            );
            $met = array_filter($live, static fn(\Generator $stream): bool => $stream->key() === $key);
            $here = array_map(static fn(\Generator $stream): array => $stream->current(), $met);
            $this->ofOneWorld($report, Side::Source, $here, 'source');
            $this->ofOneWorld($report, Side::Target, $here, match (true) {
                $report->sides['source']['problem'] !== null => 'untold',
                isset($here['records across']) => 'lost',
                isset($here['rows across']) => 'inherited',
                default => 'own',
            });
            array_walk($met, static fn(\Generator $stream) => $stream->next());
        }
    }

    /**
     * @param  array<string, Counted>  $here  what stands under one canonical value
     * @param  'lost'|'inherited'|'own'|'untold'|'source'  $kind  of the value, if it has no record
     */
    private function ofOneWorld(RecordReport $report, Side $side, array $here, string $kind): void
    {
        [$rows, $records] = [$here["rows {$side->value}"] ?? null, $here["records {$side->value}"] ?? null];
        $figures = &$report->sides[$side->value];
        if ($figures['problem'] !== null) {
            return;
        }
        $figures['recordValues'] += $records === null ? 0 : 1;
        if ($rows !== null) {
            $figures['values']++;
            if ($records === null) {
                $report->isMissing($kind, $rows['values'], $rows['count'], $rows['first']);
            } else {
                $figures['found'] += $rows['count'];
            }
        } elseif ($records !== null) {
            $place = RecordPlace::ofPacked((int) $records['first'][0]);
            $report->isUnreferenced($side, $records['values'], $records['count'], ['part' => $place->part, 'line' => $place->line]);
        }
    }
}
