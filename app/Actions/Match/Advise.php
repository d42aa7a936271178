<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Adapters\Deliveries\DeliverySample;
use App\Models\Answer;
use App\Models\Dataset;
use App\Models\DeliveryProfile;
use App\Questions\Answers;
use App\Questions\BothSides;
use App\Questions\CandidateKeys;
use App\Questions\ColumnMatching;
use App\Questions\KeyCheck;
use NineTally\Core\Advice\KeyAdvice;
use NineTally\Core\Figures\Percentage;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;

/**
 * What is advised for the plan of a dataset: which columns pair, and which of the paired ones tell rows apart; from samples at once, on
 * all rows as soon as a worker has looked.
 *
 * @phpstan-import-type Declared from DeclaredReading
 *
 * @phpstan-type Pair array{source: string, target: string}
 * @phpstan-type Repeats array{source: int, target: int}
 * @phpstan-type Advised array{columns: non-empty-list<Pair>, rows: Repeats, repeats: Repeats, unkeyed: Repeats, meets: int|null,
 *     shorter: list<array{without: string, repeats: Repeats}>, isOfAllRows: bool}
 */
final readonly class Advise
{
    public function __construct(private Answers $answers, private DeliverySample $sample) {}

    /** @return array<string, mixed> */
    public function __invoke(Dataset $dataset): array
    {
        $sides = BothSides::of($dataset);
        if ($sides === null) {
            return [
                'pairs' => ['isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => null, 'proposals' => []],
                'keys' => $this->noKeys(),
                'kinds' => [],
            ];
        }
        $pairs = $this->answers->to(new ColumnMatching($sides));

        return [
            'pairs' => [...$pairs->progress(), 'proposals' => $pairs->content['proposals'] ?? []],
            'keys' => $this->keys($dataset, $sides, $pairs),
            'kinds' => $this->kinds($dataset, $pairs),
        ];
    }

    public function cancel(Dataset $dataset): void
    {
        $sides = BothSides::of($dataset);
        foreach ($sides === null ? [] : $this->questions($dataset, $sides, $this->answers->to(new ColumnMatching($sides))) as $question) {
            $this->answers->cancel($question);
        }
    }

    public function again(Dataset $dataset): void
    {
        $sides = BothSides::of($dataset);
        foreach (
            $sides === null
                ? []
                : [new ColumnMatching($sides), ...$this->questions($dataset, $sides, $this->answers->to(new ColumnMatching($sides)))]
            as $question
        ) {
            $this->answers->again($question);
        }
    }

    /** @return list<CandidateKeys|KeyCheck> those about keys that have been asked so far */
    private function questions(Dataset $dataset, BothSides $sides, Answer $pairs): array
    {
        $paired = $this->paired($dataset, $pairs);
        if ($paired === []) {
            return [];
        }
        $search = new CandidateKeys($sides, $paired);
        $found = $this->found($this->answers->to($search));

        return $found === [] ? [$search] : [$search, new KeyCheck($sides, array_column($found, 'columns'))];
    }

    /** @return array<string, mixed> */
    private function keys(Dataset $dataset, BothSides $sides, Answer $pairs): array
    {
        $paired = $this->paired($dataset, $pairs);
        if ($paired === []) {
            return $this->noKeys();
        }
        $answer = $this->answers->to(new CandidateKeys($sides, $paired));
        $found = $this->found($answer);
        if ($found === []) {
            return [...$this->noKeys(), ...$answer->progress(), 'hasSearched' => $answer->content !== null];
        }
        $held = $this->answers->to(new KeyCheck($sides, array_column($found, 'columns')));
        /** @var array{rows: Repeats, keys: list<array{repeats: Repeats, unkeyed: Repeats, meets: int}>}|null $onAll */
        $onAll = $held->content;
        $advised = [];
        foreach ($found as $nth => $key) {
            $advised[] =
                ['columns' => $key['columns'], 'shorter' => $key['shorter']] +
                (isset($onAll['keys'][$nth])
                    ? $onAll['keys'][$nth] + ['rows' => $onAll['rows'], 'isOfAllRows' => true]
                    : [
                        'rows' => $key['rows'],
                        'repeats' => $key['repeats'],
                        'unkeyed' => ['source' => 0, 'target' => 0],
                        'meets' => null,
                        'isOfAllRows' => false,
                    ]);
        }
        if ($onAll !== null) {
            $advised = $this->ranked($sides, $paired, $advised);
        }

        return [
            ...$held->progress(),
            'hasSearched' => true,
            'advised' => array_map(
                static fn(array $key): array => $key + [
                    'meetsShare' => $key['meets'] === null ? null : (new Percentage($key['meets'], $key['rows']['source']))->text(),
                ],
                $advised,
            ),
        ];
    }

    /**
     * @param  non-empty-list<Pair>  $paired
     * @param  list<Advised>  $advised
     * @return list<Advised>
     */
    private function ranked(BothSides $sides, array $paired, array $advised): array
    {
        $names = array_column($paired, 'source');
        $ranking = KeyAdvice::ranking($names, CandidateKeys::cells($this->sample, $sides, $paired));
        $scores = [];
        foreach ($advised as $nth => $key) {
            $places = array_map(static fn(array $column): int => (int) array_search($column['source'], $names, true), $key['columns']);
            $scores[$nth] = $ranking->score(
                $places,
                $key['rows']['source'] === 0 ? null : ((int) $key['meets'] - $key['repeats']['source']) / $key['rows']['source'],
            );
        }
        arsort($scores);

        return array_map(static fn(int $nth): array => $advised[$nth], array_keys($scores));
    }

    /** @return list<Pair> of the draft, in the order of the source; of strong proposals where the draft has none */
    private function paired(Dataset $dataset, Answer $pairs): array
    {
        /** @var array{key: list<Pair>, columnPairs: list<Pair>}|null $document */
        $document = $dataset->draft()->first()?->document;
        $paired = array_map(static fn(array $pair): array => ['source' => $pair['source'], 'target' => $pair['target']], [
            ...$document['key'] ?? [],
            ...$document['columnPairs'] ?? [],
        ]);
        if ($paired === []) {
            /** @var list<array{source: string, target: string, strength: string}> $proposals */
            $proposals = $pairs->content['proposals'] ?? [];
            foreach ($proposals as $proposal) {
                if ($proposal['strength'] !== 'weak') {
                    $paired[] = ['source' => $proposal['source'], 'target' => $proposal['target']];
                }
            }
        }
        $places = array_flip($dataset->latestDelivery(Side::Source)->columns ?? []);
        usort(
            $paired,
            static fn(array $one, array $other): int => ($places[$one['source']] ?? PHP_INT_MAX) <=>
                ($places[$other['source']] ?? PHP_INT_MAX),
        );

        return $paired;
    }

    /**
     * @return list<array{columns: non-empty-list<Pair>, rows: Repeats, repeats: Repeats, shorter: list<array{without: string,
     *     repeats: Repeats}>}>
     */
    private function found(Answer $answer): array
    {
        /**
         * @var list<array{columns: non-empty-list<Pair>, rows: Repeats, repeats: Repeats, shorter: list<array{without: string,
         *     repeats: Repeats}>}> $keys
         */
        $keys = $answer->content['keys'] ?? [];

        return $keys;
    }

    /**
     * Pairs, of the draft and proposed ones, whose every value on both sides, as delivered, is of a kind that the plan does not read them
     * as: it compares them as text, or does not declare the form in which a side writes them.
     *
     * @return list<array{source: string, target: string, kind: string, isText: bool, forms: int, declares: array{source: list<Declared>,
     *     target: list<Declared>}}> with how many shapes the values of both sides have, and what each side would declare
     */
    private function kinds(Dataset $dataset, Answer $proposed): array
    {
        $draft = $dataset->draft()->first();
        /** @var list<array{source: string, target: string, kind?: string}> $pairs */
        $pairs = $draft->document['columnPairs'] ?? [];
        /** @var list<array{source: string, target: string}> $proposals */
        $proposals = $proposed->content['proposals'] ?? [];
        $taken = array_column([...$pairs, ...$draft->document['key'] ?? []], 'source');
        foreach ($proposals as $proposal) {
            if (! in_array($proposal['source'], $taken, true)) {
                $pairs[] = ['source' => $proposal['source'], 'target' => $proposal['target']];
            }
        }
        $rules = ['source' => $draft?->rules(Side::Source), 'target' => $draft?->rules(Side::Target)];
        $profiles = array_map(
            static fn(Side $side): array => array_column(
                DeliveryProfile::query()->find($dataset->latestDelivery($side)?->id)->columns ?? [],
                null,
                'name',
            ),
            ['source' => Side::Source, 'target' => Side::Target],
        );
        $kinds = [];
        foreach ($pairs as $pair) {
            [$source, $target] = [$profiles['source'][$pair['source']] ?? null, $profiles['target'][$pair['target']] ?? null];
            if ($source === null || $target === null || $source['kind'] !== $target['kind'] || $source['kind'] === Kind::Text->value) {
                continue;
            }
            $isText = ($pair['kind'] ?? Kind::Text->value) === Kind::Text->value;
            $declares = [
                'source' => $this->undeclared($source['forms'] ?? [], $pair['source'], $rules['source']),
                'target' => $this->undeclared($target['forms'] ?? [], $pair['target'], $rules['target']),
            ];
            if ($isText || ($pair['kind'] === $source['kind'] && $declares !== ['source' => [], 'target' => []])) {
                $kinds[] = [
                    'source' => $pair['source'],
                    'target' => $pair['target'],
                    'kind' => $source['kind'],
                    'isText' => $isText,
                    'forms' => count(
                        array_unique([...array_column($source['shapes'], 'shape'), ...array_column($target['shapes'], 'shape')]),
                    ),
                    'declares' => $declares,
                ];
            }
        }

        return $kinds;
    }

    /**
     * @param  list<Declared>  $forms  in which all values can be read
     * @return list<Declared> those, unless a step writes the column, or the plan declares something of that sort already: then a person has
     *     decided
     */
    private function undeclared(array $forms, string $column, ?SideRules $rules): array
    {
        $behind = ($rules ?? new SideRules)->preparation->formsBehind();
        $declared = $behind->declared($column);
        $decided = array_filter($forms, static fn(array $form): bool => array_intersect_key($form, $declared) !== []);

        return $decided === [] && ! $behind->isWritten($column) ? $forms : [];
    }

    /** @return array<string, mixed> */
    private function noKeys(): array
    {
        return ['isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => null, 'hasSearched' => false, 'advised' => []];
    }
}
