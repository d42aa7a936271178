<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

use NineTally\Core\NineTallyException;

final class DuplicateColumn extends \UnexpectedValueException implements NineTallyException
{
    private function __construct(string $message)
    {
        parent::__construct($message);
    }

    /** @param non-empty-list<string> $columns by their own names */
    public static function inHeader(string $owner, string $name, array $columns): self
    {
        return new self(
            sprintf(
                'The header of "%s" names column "%s" %d times, so nobody can say which one is meant. Say which by its place, as "%s", '.
                    'or leave "%s" out.',
                Excerpt::of($owner),
                Excerpt::of($name),
                count($columns),
                implode('" or "', Excerpt::ofEach(array_slice($columns, 0, 5))),
                Excerpt::of($name),
            ),
        );
    }

    public function code(): string
    {
        return 'duplicate-column';
    }
}
