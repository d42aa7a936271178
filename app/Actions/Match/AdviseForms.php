<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Adapters\Deliveries\DeliveryReader;
use App\Models\Answer;
use App\Models\Dataset;
use App\Models\DeliveryProfile;
use App\Models\PlanDraft;
use App\Queries\Review\SideMask;
use App\Questions\Answers;
use App\Questions\BothSides;
use App\Questions\FormsOfPairs;
use App\Questions\KeySample;
use App\Questions\WhatKeepsRowsApart;
use NineTally\Core\NineTallyException;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;

/**
 * How the values of pairs are written, and what of form keeps rows apart: what the plan does not say yet, with what it would settle.
 *
 * @phpstan-import-type Declared from DeclaredReading
 *
 * @phpstan-type Pair array{source: string, target: string, kind?: string}
 * @phpstan-type Rung array{column: string, cause: string, entries: list<array{source: string, target: string}>, source: Declared,
 *     target: Declared, example: array{source: string, target: string}|null}
 * @phpstan-type Form array{source: string, target: string, kind: string, compared: int, asText: int, isOfRows: bool,
 *     ways: non-empty-list<array{source: Declared, target: Declared, agree: int}>,
 *     rows: list<array{sourceLine: int, targetLine: int, source: string, target: string}>}
 */
final readonly class AdviseForms
{
    public function __construct(private Answers $answers) {}

    /**
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>
     */
    public function forms(Dataset $dataset, BothSides $sides, Answer $proposed, Sides $masks): array
    {
        $draft = $dataset->draftNow();
        $pairs = $this->pairs($draft, $proposed);
        $answer = $pairs === [] ? null : $this->answers->to($this->question($dataset, $sides, $draft, $pairs));
        if ($answer === null) {
            return ['isWaiting' => false, 'problem' => null, 'forms' => [], 'tokens' => []];
        }
        /** @var list<Form> $forms */
        $forms = $answer->content['forms'] ?? [];
        $kinds = array_column($pairs, 'kind', 'source');
        $keys = array_column($draft->document['key'] ?? [], 'source');
        $told = [];
        foreach ($forms as $form) {
            $kind = $kinds[$form['source']] ?? Kind::Text->value;
            $isOfTime = static fn(string $one): bool => in_array($one, [Kind::Date->value, Kind::DateTime->value], true);
            $isText = $kind === Kind::Text->value;
            $declares = array_filter($form['ways'], static fn(array $way): bool => $way['source'] !== [] || $way['target'] !== []) !== [];
            $isSame = $kind === $form['kind'] || $isOfTime($kind) && $isOfTime($form['kind']);
            if (! in_array($form['source'], $keys, true) && ($isText || $isSame && $declares)) {
                $isHidden = $masks->source->hidesPrepared($form['source']) || $masks->target->hidesPrepared($form['target']);
                $told[] = [
                    ...$form,
                    'isText' => $isText,
                    'ways' => array_map(
                        static fn(array $way): array => [
                            'source' => (object) $way['source'],
                            'target' => (object) $way['target'],
                            'agree' => $way['agree'],
                        ],
                        $form['ways'],
                    ),
                    'rows' => array_map(static fn(array $row): array => [
                        ...$row,
                        'source' => $isHidden ? $masks->source->hidden($row['source']) : DeliveryReader::shortened($row['source']),
                        'target' => $isHidden ? $masks->source->hidden($row['target']) : DeliveryReader::shortened($row['target']),
                    ], $form['rows']),
                ];
            }
        }

        return [
            ...array_intersect_key($answer->progress(), ['isWaiting' => true, 'problem' => true]),
            'forms' => $told,
            'tokens' => $answer->content['tokens'] ?? [],
        ];
    }

    /**
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>|null null while there is no key
     */
    public function meeting(Dataset $dataset, BothSides $sides, Sides $masks): ?array
    {
        $question = $this->ladder($dataset, $sides);
        if ($question === null) {
            return null;
        }
        $answer = $this->answers->to($question);
        $content = $answer->content;
        if ($content === null) {
            return [...$answer->progress(), 'found' => null];
        }
        /** @var list<array{source: list<string>, target: list<string>|null}> $beside */
        $beside = $content['beside'];
        /** @var list<array{source: string, target: string}> $key */
        $key = $dataset->draftNow()->document['key'] ?? [];
        $isHidden = static fn(int $place): bool => isset($key[$place]) &&
            ($masks->source->hidesPrepared($key[$place]['source']) || $masks->target->hidesPrepared($key[$place]['target']));
        $shownCell = static fn(string $cell, int $place): string => $isHidden($place)
            ? $masks->source->hidden($cell)
            : DeliveryReader::shortened($cell);
        $shown = static function (?array $cells) use ($shownCell): ?array {
            /** @var list<string>|null $cells */
            return $cells === null ? null : array_map($shownCell, $cells, array_keys($cells));
        };
        $places = array_flip(array_column($key, 'source'));
        /** @var list<Rung> $rungs */
        $rungs = $content['rungs'];
        $told = [];
        foreach ($rungs as $rung) {
            // What a crosswalk would say is made of values.
            if ($rung['cause'] !== 'crosswalk' || ! $isHidden($places[$rung['column']] ?? 0)) {
                $told[] = $rung;
            }
        }

        return [
            ...$answer->progress(),
            'found' => [
                ...$content,
                'rungs' => array_map(
                    static fn(array $rung): array => [
                        ...$rung,
                        'source' => (object) $rung['source'],
                        'target' => (object) $rung['target'],
                        'example' => $rung['example'] === null ? null : array_map(
                            static fn(string $cell): string => $shownCell($cell, $places[$rung['column']] ?? 0),
                            $rung['example'],
                        ),
                    ],
                    $told,
                ),
                'together' => $told === $rungs ? $content['together'] : null,
                'beside' => array_map(
                    static fn(array $both): array => ['source' => $shown($both['source']), 'target' => $shown($both['target'])],
                    $beside,
                ),
            ],
        ];
    }

    public function ladder(Dataset $dataset, BothSides $sides): ?WhatKeepsRowsApart
    {
        $draft = $dataset->draftNow();
        $plan = $this->usable($draft);

        return $plan === null ? null : new WhatKeepsRowsApart($sides, $plan, $this->hasProfiles($dataset), (int) date('Y'));
    }

    /** @param list<Pair> $pairs */
    private function question(Dataset $dataset, BothSides $sides, ?PlanDraft $draft, array $pairs): FormsOfPairs
    {
        $plan = $this->usable($draft);
        $sample = $plan === null ? null : new KeySample($sides, $plan);
        $isDrawn = $sample !== null && $this->answers->to($sample)->content !== null;
        $rules = Sides::each(static fn(Side $side): SideRules => $draft?->rules($side) ?? new SideRules);

        return new FormsOfPairs(
            $sides,
            array_map(static fn(array $pair): array => [
                'source' => $pair['source'],
                'target' => $pair['target'],
                'declared' => [
                    'source' => $rules->source->preparation->formsBehind()->declared($pair['source']),
                    'target' => $rules->target->preparation->formsBehind()->declared($pair['target']),
                ],
            ], $pairs),
            $isDrawn ? $this->answers->digest($sample) : null,
            $isDrawn ? $plan : null,
            $this->hasProfiles($dataset),
            (int) date('Y'),
        );
    }

    /** @return string|null the draft as a plan, where it has a key and is one */
    private function usable(?PlanDraft $draft): ?string
    {
        if ($draft === null || $draft->document['key'] === []) {
            return null;
        }
        $json = CanonicalJson::of($draft->document);
        try {
            Plan::fromJson($json);
        } catch (NineTallyException) {
            return null;
        }

        return $json;
    }

    private function hasProfiles(Dataset $dataset): bool
    {
        $deliveries = array_map(static fn(Side $side): ?int => $dataset->latestDelivery($side)?->id, Side::cases());

        // Only whether they are there: a profile of many columns is long, and this is asked at every look.
        return DeliveryProfile::query()->whereKey($deliveries)->whereNotNull('columns')->count() === count($deliveries);
    }

    /** @return list<Pair> of the draft, and proposed ones; in an order that does not change when one of them is confirmed */
    private function pairs(?PlanDraft $draft, Answer $proposed): array
    {
        /** @var list<Pair> $pairs */
        $pairs = [...$draft->document['columnPairs'] ?? [], ...$draft->document['key'] ?? []];
        /** @var list<Pair> $proposals */
        $proposals = $proposed->content['proposals'] ?? [];
        $taken = [array_column($pairs, 'source'), array_column($pairs, 'target')];
        foreach ($proposals as $proposal) {
            if (! in_array($proposal['source'], $taken[0], true) && ! in_array($proposal['target'], $taken[1], true)) {
                $pairs[] = ['source' => $proposal['source'], 'target' => $proposal['target']];
            }
        }
        usort($pairs, static fn(array $one, array $other): int => strcmp($one['source'], $other['source']));

        return $pairs;
    }
}
