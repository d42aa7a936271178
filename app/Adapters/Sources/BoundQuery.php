<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/**
 * A query in which a name after a colon stands for a value. Values are put in as the database quotes them, for COPY and the text protocol
 * of MySQL know no binding; what looks like a name within text, quoted names and comments is left as it is.
 */
final readonly class BoundQuery
{
    private const OTHER =
        '"(?:[^"]|"")*"|`[^`]*`|\$(?<tag>\w*)\$.*?\$\k<tag>\$|--[^\n]*|/\*.*?\*/|::|:=|(?<![\w:]):(?<name>[A-Za-z_]\w*)';

    private const TEXT = "[eE]'(?:[^'\\\\]|\\\\.|'')*'|'(?:[^']|'')*'";

    /** There a backslash within text takes the meaning of the character behind it. */
    private const TEXT_OF_MYSQL = "'(?:[^'\\\\]|\\\\.|'')*'";

    private string $pattern;

    public function __construct(private string $sql, SourceKind $kind)
    {
        $this->pattern = '~'.($kind === SourceKind::Mysql ? self::TEXT_OF_MYSQL : self::TEXT).'|'.self::OTHER.'~s';
    }

    /** @return list<string> in the order in which they first stand */
    public function names(): array
    {
        preg_match_all($this->pattern, $this->sql, $found);

        return array_values(array_unique(array_filter($found['name'], static fn(string $name): bool => $name !== '')));
    }

    /**
     * @param  array<string, string>  $values  by name
     * @param  \Closure(string): (string|false)  $quote
     *
     * @throws SourceProblem when one is not said
     */
    public function with(array $values, \Closure $quote): string
    {
        $missing = array_diff($this->names(), array_keys($values));
        if ($missing !== []) {
            throw new SourceProblem('It needs a value for :'.implode(', :', $missing).'. Say it, or take the name out.');
        }

        return (string) preg_replace_callback(
            $this->pattern,
            static fn(array $found): string => ($found['name'] ?? '') === '' ? $found[0] : (string) $quote($values[$found['name']]),
            $this->sql,
        );
    }
}
