<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

/** Why two cells differ: one cause, or several causes of form that explain it together. */
final readonly class Cause
{
    /** As exports and the database hold it: "spacing+case". */
    public string $id;

    /**
     * @param  non-empty-list<CauseId>  $ids  in the order of the catalogue
     * @param  array<string, string|int>  $facts  length, factor, offset: what the sentence needs and a pattern is grouped by;
     *                                            "forms" names the causes of form that come on top of a cause of value
     */
    public function __construct(public array $ids, public array $facts = [])
    {
        $this->id = implode('+', array_map(static fn(CauseId $id): string => $id->value, $ids));
    }

    /** @param array<string, string|int> $facts */
    public static function of(CauseId $id, array $facts = []): self
    {
        return new self([$id], $facts);
    }

    public function sentence(): string
    {
        return (new CauseSentence($this->facts))->of($this->ids);
    }
}
