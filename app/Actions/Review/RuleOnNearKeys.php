<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Actions\Match\SaveDraft;
use App\Models\PlanDraft;
use App\Models\Tally;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Review\NearPairs;
use App\Questions\Answers;
use App\Questions\NearRows;
use NineTally\Core\Likeness\FoldedText;
use NineTally\Core\Plan\Bridge;
use NineTally\Core\Plan\Bridges;

/**
 * What a person decides of rows that are alike becomes part of the draft: a bridge, a pair that is not proposed again, or neither.
 *
 * @phpstan-import-type Look from NearRows
 * @phpstan-import-type Found from NearRows
 *
 * @phpstan-type Keys array{source: list<string>, target: list<string>}
 */
final readonly class RuleOnNearKeys
{
    public function __construct(private Answers $answers, private SaveDraft $saveDraft) {}

    /**
     * @param  non-empty-list<Look>  $columns  of the look
     * @param  'confirmed'|'refused'|'open'  $decision
     * @param  list<array{int, int}>|null  $pairs  of the look; null for all that are open and have no rival
     * @param  array{score: float, margin: float}  $from  that all of them have at least
     * @param  int  $seen  the number of the draft that the person saw
     * @return array{draft: int, decided: int, pairs: list<array{int, int}>}
     *
     * @throws Conflict when the look is not there, or the key has changed since the tally
     * @throws \App\Problems\DraftChanged when somebody else has saved another since
     */
    public function __invoke(
        Tally $tally,
        array $columns,
        string $decision,
        ?array $pairs,
        array $from,
        User $person,
        int $seen,
    ): array {
        $draft = $tally->dataset->draft()->firstOrFail();
        $names = static fn(mixed $one): array => [data_get($one, 'source'), data_get($one, 'target')];
        if (array_map($names, $draft->document['key']) !== array_map($names, $tally->planVersion->plan()->key)) {
            throw Conflict::because('key-changed', 'The key has changed since this tally. Tally again, then look for rows that are alike.');
        }
        $equivalents = Bridges::fromDocument($draft->document)->equivalents;
        /** @var Found|null $found */
        $found = $this->answers->to(new NearRows($tally->id, $columns, $equivalents))->content;
        if ($found === null) {
            throw Conflict::because('not-looked', 'These rows are still being looked for. Wait until they are there.');
        }
        $near = new NearPairs($tally, $columns, $equivalents, $found);
        $chosen = $pairs ?? array_map(
            static fn(array $pair): array => [$pair[0], $pair[1]],
            $near->clear($from['score'], $from['margin']),
        );
        $keys = array_map(
            static fn(array $pair): array => $near->keysOf($pair[0], $pair[1]) ??
                throw Conflict::because('no-candidate', 'These two rows are not among those that were found alike. Look again.'),
            $chosen,
        );

        // As many as all rows of both sides: what was looked through is not held while the draft is saved.
        unset($found, $near);

        return [
            'draft' => ($this->saveDraft)($tally->dataset, self::decided($draft, $decision, $keys), $person, $seen)->number,
            'decided' => count($keys),
            'pairs' => $chosen,
        ];
    }

    /**
     * Says which words mean the same, where rows are looked for by likeness.
     *
     * @param  list<array{word: string, meaning: string}>  $equivalents
     *
     * @throws \App\Problems\DraftChanged when somebody else has saved another since
     */
    public function equivalents(Tally $tally, array $equivalents, User $person, int $seen): int
    {
        $draft = $tally->dataset->draft()->firstOrFail();
        $folded = new FoldedText;
        $words = [];
        foreach ($equivalents as ['word' => $word, 'meaning' => $meaning]) {
            [$word, $meaning] = [$folded->fold($word), $folded->fold($meaning)];
            if ($word !== '' && $meaning !== '' && ! str_contains("{$word}{$meaning}", ' ')) {
                $words[$word] = $meaning;
            }
        }
        ksort($words, SORT_STRING);
        $told = (new Bridges(equivalents: $words))->words();

        return ($this->saveDraft)(
            $tally->dataset,
            array_filter(['equivalents' => $told]) + array_diff_key($draft->document, ['equivalents' => true]),
            $person,
            $seen,
        )->number;
    }

    /**
     * @param  'confirmed'|'refused'|'open'  $decision
     * @param  list<Keys>  $keys
     * @return array<string, mixed> of the draft
     */
    private static function decided(PlanDraft $draft, string $decision, array $keys): array
    {
        $those = array_map(Bridge::fromArray(...), $keys);
        $decided = Bridges::identities($those);
        $isOther = static fn(Bridge $pair): bool => ! isset($decided[$pair->identity()]);
        $before = Bridges::fromDocument($draft->document);
        [$bridges, $refused] = [array_filter($before->confirmed, $isOther), array_filter($before->refused, $isOther)];
        if ($decision === 'confirmed') {
            // A key is bridged to one other: who confirms another means that it was not the first.
            foreach (['source', 'target'] as $side) {
                $ends = array_fill_keys(array_map(static fn(Bridge $pair): string => (string) json_encode($pair->{$side}), $those), true);
                $bridges = array_filter($bridges, static fn(Bridge $pair): bool => ! isset($ends[json_encode($pair->{$side})]));
            }
            $bridges = [...$bridges, ...$those];
        } elseif ($decision === 'refused') {
            $refused = [...$refused, ...$those];
        }
        $pairs = (new Bridges(array_values($bridges), array_values($refused)))->pairs();

        return array_filter(
            [...$draft->document, ...$pairs],
            static fn(mixed $part, string $name): bool => $part !== [] || ! isset($pairs[$name]),
            ARRAY_FILTER_USE_BOTH,
        );
    }
}
