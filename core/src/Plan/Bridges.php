<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

/** What was decided of pairs of keys that differ: those that mean the same thing, those that do not, and words to find them by. */
final readonly class Bridges
{
    /**
     * @param  list<Bridge>  $confirmed
     * @param  list<Bridge>  $refused  never proposed again; they join nothing
     * @param  array<string, string>  $equivalents  word => word that stands for it, where rows are looked for by likeness
     */
    public function __construct(public array $confirmed = [], public array $refused = [], public array $equivalents = []) {}

    /** @param array<array-key, mixed> $document of a plan that follows the schema, or of a draft */
    public static function fromDocument(array $document): self
    {
        /**
         * @var array{
         *     bridges?: list<array{source: list<string>, target: list<string>, right?: string}>,
         *     refusedBridges?: list<array{source: list<string>, target: list<string>}>,
         *     equivalents?: list<array{word: string, meaning: string}>,
         * } $document
         */
        return new self(
            array_map(Bridge::fromArray(...), $document['bridges'] ?? []),
            array_map(Bridge::fromArray(...), $document['refusedBridges'] ?? []),
            array_map(strval(...), array_column($document['equivalents'] ?? [], 'meaning', 'word')),
        );
    }

    /** @return array<'bridges'|'refusedBridges', list<array{source: list<string>, target: list<string>, right?: 'source'|'target'}>> */
    public function pairs(): array
    {
        $told = static fn(Bridge $pair): array => $pair->toArray();

        return ['bridges' => array_map($told, $this->confirmed), 'refusedBridges' => array_map($told, $this->refused)];
    }

    /** @return array<string, list<array<string, mixed>>> parts of the document of a plan */
    public function toArrays(): array
    {
        return $this->pairs() + ['equivalents' => $this->words()];
    }

    /** @return list<array{word: string, meaning: string}> */
    public function words(): array
    {
        return array_map(
            static fn(int|string $word, string $meaning): array => ['word' => (string) $word, 'meaning' => $meaning],
            array_keys($this->equivalents),
            array_values($this->equivalents),
        );
    }

    /**
     * @param  list<Bridge>  $bridges
     * @return array<array-key, true> by {@see Bridge::identity()}
     */
    public static function identities(array $bridges): array
    {
        return array_fill_keys(array_map(static fn(Bridge $pair): string => $pair->identity(), $bridges), true);
    }
}
