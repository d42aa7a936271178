<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

use NineTally\Core\NineTallyException;

final class DuplicateColumn extends \UnexpectedValueException implements NineTallyException
{
    /** @param list<int> $positions counted from 1 */
    private function __construct(public readonly string $owner, public readonly string $column, public readonly array $positions)
    {
        parent::__construct(sprintf(
            'The header of "%s" names column "%s" %d times (columns %s), so nobody can say which one is meant. Give each column a name of its own and deliver the file again, or leave "%s" out.',
            $owner,
            $column,
            count($positions),
            implode(', ', $positions),
            $column,
        ));
    }

    /** @param list<int> $positions counted from 1 */
    public static function inHeader(string $owner, string $column, array $positions): self
    {
        return new self($owner, $column, $positions);
    }

    public function code(): string
    {
        return 'duplicate-column';
    }
}
