<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

/** What the catalogue found: one cause, or several causes of form that explain a difference together. */
final readonly class Cause
{
    /**
     * @param  non-empty-list<CauseId>  $ids  in the order of the catalogue
     * @param  array<string, string|int>  $facts  length, factor, offset: what the sentence needs and a pattern is grouped by
     */
    public function __construct(public array $ids, public array $facts = []) {}

    /** As exports and the database hold it: "spacing+case". */
    public function id(): string
    {
        return implode('+', array_map(static fn(CauseId $id): string => $id->value, $this->ids));
    }
}
