<?php

declare(strict_types=1);

namespace NineTally\Core\Tally\Trial;

use NineTally\Core\Cause\FormCombination;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\InMemoryReader;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Profile\Repeats\StakeColumn;
use NineTally\Core\Repeats\ChosenRow;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Tally\Workspace;
use NineTally\Core\Totals\ExactSum;

/**
 * Tries what would become of rows whose key repeats: the plan is run on these rows alone, once for each policy. What it counts is what a
 * tally of all rows would count of them; causes of whole columns are told from these rows.
 */
final readonly class PolicyTrial
{
    /** @var Sides<Reader>|null the rows among which people chose; null where they chose nowhere */
    private ?Sides $chosenAmong;

    /** @var array<'source'|'target', array<int, string>> by side and packed place: digests of these rows */
    private array $digests;

    /** @var Sides<KeyForm> */
    private Sides $forms;

    /**
     * @param  Sides<RowsAside>  $rows  of repeated keys
     * @param  string  $folder  for what runs write aside
     * @param  Sides<StakeColumn>|null  $stakes  columns of which is told what the rows that are not compared add up to
     */
    public function __construct(
        private Plan $plan,
        private Sides $rows,
        private string $folder,
        FormCombination $forms,
        private ?Sides $stakes = null,
    ) {
        $this->forms = Sides::each(static fn(Side $side): KeyForm => $plan->keyForm($side, $forms));
        $this->chosenAmong = $plan->keptRows() === [] ? null : $this->ofKeys(array_fill_keys(array_map(
            fn(ChosenRow $chosen): string => $this->forms->of($chosen->side)->canonical($chosen->key),
            $plan->keptRows(),
        ), true));
        $this->digests = Sides::each(function (Side $side): array {
            $digests = [];
            foreach ($this->chosenAmong?->of($side)->records() ?? [] as $row) {
                if ($row instanceof Row && $this->chosenAmong !== null) {
                    $digests[$this->chosenAmong->of($side)->place($row->line)->packed()] =
                        ChosenRow::rowDigest(implode(Batch::CELL_END, $row->cells));
                }
            }

            return $digests;
        })->named();
    }

    /**
     * The rows of both sides that have one of these canonical keys.
     *
     * @param  array<array-key, true>  $keys
     * @return Sides<InMemoryReader>
     */
    public function ofKeys(array $keys): Sides
    {
        return Sides::each(function (Side $side) use ($keys): InMemoryReader {
            $aside = $this->rows->of($side);
            $rows = [];
            foreach ($this->withKeys($side, $aside) as $key => $row) {
                if (isset($keys[$key])) {
                    $rows[] = [$aside->place($row->line)->packed(), $row->cells];
                }
            }

            return new InMemoryReader($aside->name(), $aside->columns()->names, $rows);
        });
    }

    /** @return array<array-key, list<Row>> rows of a side by canonical key, in their order */
    public function byKey(Side $side, Reader $reader): array
    {
        $rows = [];
        foreach ($this->withKeys($side, $reader) as $key => $row) {
            $rows[$key][] = $row;
        }

        return $rows;
    }

    /** @return \Generator<string, Row> by canonical key */
    private function withKeys(Side $side, Reader $reader): \Generator
    {
        $places = $reader->columns()->positionsOf($this->plan->keyNames($side));
        foreach ($reader->records() as $row) {
            if ($row instanceof Row) {
                yield $this->forms->of($side)->canonical(array_map(static fn(int $place): string => $row->cells[$place], $places)) => $row;
            }
        }
    }

    /** @param Sides<RepeatsPolicy> $policies */
    public function of(Sides $policies): TriedPolicy
    {
        $leftOut = Sides::each(static fn(): ExactSum => new ExactSum);
        $kept = $changed = [];
        $workspace = Workspace::make($this->folder);
        try {
            $findings = (new TallyRun(
                $this->withPolicies($policies, isChosenKept: true),
                $this->rows,
                $workspace->path,
                settings: new TallySettings(triesSideBySide: false),
            ))->findings();
            foreach ($findings as $finding) {
                if ($finding->class === RowClass::Changed) {
                    $changed[$finding->key?->bytes() ?? ''] = true;
                } elseif ($finding->class === RowClass::Repeated && $finding->side !== null) {
                    $kept[self::groupOf($finding->side, $finding)] = $finding->kept?->packed() ?? 0;
                    $this->stakes?->of($finding->side)->add($leftOut->of($finding->side), $finding->record()->cells ?? []);
                }
            }

            return new TriedPolicy($findings->getReturn(), $leftOut, $kept, $changed, $this->asChosen($policies));
        } finally {
            $workspace->remove();
        }
    }

    /** What the rows of one canonical key of a side are called by. */
    public static function group(Side $side, string $key): string
    {
        return $side->value.Batch::CELL_END.$key;
    }

    private static function groupOf(Side $side, RowFinding $finding): string
    {
        return self::group($side, $finding->key?->bytes() ?? '');
    }

    /** @return array{Side, string} side and canonical key */
    public static function ofGroup(string $group): array
    {
        [$side, $key] = explode(Batch::CELL_END, $group, 2);

        return [Side::from($side), $key];
    }

    /** @param Sides<RepeatsPolicy> $policies */
    private function asChosen(Sides $policies): int
    {
        if ($this->chosenAmong === null) {
            return 0;
        }
        $workspace = Workspace::make($this->folder);
        try {
            $kept = [];
            $run = new TallyRun(
                $this->withPolicies($policies, isChosenKept: false),
                $this->chosenAmong,
                $workspace->path,
                settings: new TallySettings(partitions: 1, triesSideBySide: false),
            );
            foreach ($run->findings() as $finding) {
                if ($finding->class === RowClass::Repeated && $finding->side !== null) {
                    $kept[self::groupOf($finding->side, $finding)] = $finding->kept?->packed() ?? 0;
                }
            }
        } finally {
            $workspace->remove();
        }
        $asChosen = 0;
        foreach ($this->plan->keptRows() as $chosen) {
            $key = $this->forms->of($chosen->side)->canonical($chosen->key);
            $place = $kept[self::group($chosen->side, $key)] ?? 0;
            $asChosen += (int) ($place > 0 && ($this->digests[$chosen->side->value][$place] ?? null) === $chosen->row);
        }

        return $asChosen;
    }

    /**
     * @param  Sides<RepeatsPolicy>  $policies
     * @param  bool  $isChosenKept  whether what people chose is kept whatever the policy
     */
    private function withPolicies(Sides $policies, bool $isChosenKept): Plan
    {
        [$source, $target] = Sides::each(function (Side $side) use ($policies, $isChosenKept): SideRules {
            $rules = $this->plan->side($side);
            $kept = $isChosenKept ? $rules->keptRows : [];

            return new SideRules($rules->declared, $rules->columns, $policies->of($side), $rules->preparation, $kept);
        })->both();

        return new Plan(
            $this->plan->key,
            $this->plan->columnPairs,
            $this->plan->leftOut,
            $source,
            $target,
            $this->plan->bridges,
            $this->plan->references,
        );
    }
}
