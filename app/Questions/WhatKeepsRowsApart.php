<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Deliveries\DeliverySample;
use NineTally\Core\Advice\FormAdvice;
use NineTally\Core\Advice\KeyLadder;
use NineTally\Core\Advice\KeyLadderCount;
use NineTally\Core\Advice\KeyRung;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Matching\RowSets\KeyMeeting;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;

/**
 * How many rows meet by the key of a plan, and what of form keeps the others apart.
 *
 * @phpstan-import-type Declared from DeclaredReading
 */
final readonly class WhatKeepsRowsApart implements Question
{
    private const ROWS_BETWEEN_REPORTS = 5_000;

    private const BESIDE = 12;

    /** @param string $plan as JSON: its key, and what both sides declare of it, is what is asked about */
    public function __construct(private BothSides $sides, private string $plan, private bool $hasProfiles, private int $thisYear) {}

    public function kind(): string
    {
        return 'what-keeps-rows-apart';
    }

    public function about(): array
    {
        return [$this->sides->about(), $this->hasProfiles, $this->thisYear, ...Plan::fromJson($this->plan)->keyRules()];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        return $material->withFolder(function (string $folder) use ($material, $onProgress): array {
            $plan = Plan::fromJson($this->plan);
            $rows = max(1, ...array_map(fn(Side $side): int => $this->sides->delivery($side)->delivered_count, Side::cases()));
            $ladder = new KeyLadder(
                array_map(fn(KeyColumn $column): array => [
                    'forgives' => $column->forgives,
                    'source' => $plan->source->preparation->formsBehind()->declared($column->source),
                    'target' => $plan->target->preparation->formsBehind()->declared($column->target),
                ], $plan->key),
                $this->readings($plan, $material),
                (new CauseCatalogue)->forms,
                $folder,
                (int) ceil($rows / KeyLadder::ROWS),
            );
            $counts = $this->read($material, $plan, $folder, [$ladder->count([])], $ladder, $onProgress);
            $rungs = $ladder->rungs();
            $fewest = $ladder->fewest($rungs);
            $wanted = array_map(static fn(KeyRung $rung): array => [$rung], $rungs);
            $wanted = count($fewest) > 1 ? [...$wanted, $fewest] : $wanted;
            $base = $counts['counts'][0]->meeting();
            $meetings = $ladder->isWhole() || $wanted === []
                ? array_map($ladder->meeting(...), $wanted)
                : array_map(
                    static fn(KeyLadderCount $count): KeyMeeting => $count->meeting(),
                    $this->read($material, $plan, $folder, array_map($ladder->count(...), $wanted), null, $onProgress)['counts'],
                );
            $told = array_map(static fn(KeyMeeting $meeting): array => [
                'brings' => $meeting->met - $base->met,
                'shares' => [
                    'source' => $meeting->sharing['source'] - $base->sharing['source'],
                    'target' => $meeting->sharing['target'] - $base->sharing['target'],
                ],
                'left' => $counts['rows']['source'] - $meeting->met,
            ], $meetings);

            return [
                'rows' => $counts['rows'],
                'met' => $base->met,
                'oneToOne' => $base->oneToOne,
                'sharing' => $base->sharing,
                'rungs' => array_map(
                    static fn(KeyRung $rung, array $figures): array => [
                        'column' => $plan->key[$rung->column]->source,
                        'cause' => $rung->cause,
                        'entries' => array_map(
                            static fn(int|string $source, string $target): array => ['source' => (string) $source, 'target' => $target],
                            array_keys($rung->entries),
                            $rung->entries,
                        ),
                        'source' => (object) $rung->source,
                        'target' => (object) $rung->target,
                        'example' => $ladder->example($rung, $fewest),
                    ] + $figures,
                    $rungs,
                    array_slice($told, 0, count($rungs)),
                ),
                'together' =>
                    count($fewest) > 1
                        ? [
                                'rungs' => array_keys(
                                    array_uintersect(
                                        $rungs,
                                        $fewest,
                                        static fn(KeyRung $one, KeyRung $other): int => spl_object_id($one) <=> spl_object_id($other),
                                    ),
                                ),
                            ] + $told[count($rungs)]
                        : null,
                'beside' => $ladder->beside($fewest, self::BESIDE),
            ];
        });
    }

    /**
     * @param  list<KeyLadderCount>  $counts
     * @param  \Closure(int, int): void  $onProgress
     * @return array{counts: list<KeyLadderCount>, rows: array{source: int, target: int}}
     */
    private function read(
        QuestionContext $material,
        Plan $plan,
        string $folder,
        array $counts,
        ?KeyLadder $ladder,
        \Closure $onProgress,
    ): array {
        $readers = ['source' => $this->sides->reader($material, Side::Source), 'target' => $this->sides->reader($material, Side::Target)];
        $total = $readers['source']->bytes() + $readers['target']->bytes();
        $rows = ['source' => 0, 'target' => 0];
        $before = 0;
        foreach ($readers as $side => $reader) {
            $places = $reader->columns()->positionsOf($plan->keyNames(Side::from($side)));
            $bytes = 0;
            foreach ($reader->records(static function (int $read) use (&$bytes): void {
                $bytes = $read;
            }) as $record) {
                if (! $record instanceof Row) {
                    continue;
                }
                $key = array_map(static fn(int $place): string => $record->cells[$place], $places);
                $ladder?->see($side, $key);
                foreach ($counts as $count) {
                    $count->see($side, $key);
                }
                ++$rows[$side] % self::ROWS_BETWEEN_REPORTS === 0 && $onProgress($before + $bytes, $total);
            }
            $before += $reader->bytes();
        }

        return ['counts' => $counts, 'rows' => $rows];
    }

    /** @return array<int, list<array{source: Declared, target: Declared, kind: Kind}>> by column of the key */
    private function readings(Plan $plan, QuestionContext $material): array
    {
        $readings = new ColumnReadings(new DeliverySample($material->reader, $material->sides, isPatient: true), $this->sides);
        $ofColumns = [];
        foreach ($plan->key as $place => $column) {
            $proposal = (new FormAdvice($this->thisYear))->of(
                $readings->of(Side::Source, $column->source, $plan->source->preparation->formsBehind()->declared($column->source)),
                $readings->of(Side::Target, $column->target, $plan->target->preparation->formsBehind()->declared($column->target)),
                [],
                [$readings->values(Side::Source, $column->source), $readings->values(Side::Target, $column->target)],
            );
            foreach ($proposal->ways ?? [] as $way) {
                $ofColumns[$place][] = ['source' => $way->source, 'target' => $way->target, 'kind' => $way->kind];
            }
        }

        return $ofColumns;
    }
}
