<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

use NineTally\Core\NineTallyException;

final class UnknownColumn extends \OutOfBoundsException implements NineTallyException
{
    private const NAMES_SHOWN = 30;

    /** @param list<string> $existing */
    private function __construct(public readonly string $owner, public readonly string $column, public readonly array $existing)
    {
        $shown = implode(', ', Excerpt::ofEach(array_slice($existing, 0, self::NAMES_SHOWN)));
        $more = count($existing) - self::NAMES_SHOWN;
        parent::__construct(sprintf(
            '"%s" has no column "%s". Its columns are: %s%s. Choose one of these; capitals and spaces count.',
            Excerpt::of($owner),
            Excerpt::of($column),
            $shown,
            $more > 0 ? " and {$more} more" : '',
        ));
    }

    /** @param list<string> $existing */
    public static function notAmong(string $owner, string $column, array $existing): self
    {
        return new self($owner, $column, $existing);
    }

    public function code(): string
    {
        return 'unknown-column';
    }
}
