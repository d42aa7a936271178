<?php

declare(strict_types=1);

namespace App\Adapters\Database;

use Illuminate\Database\Connection;

/** COPY's text format (PostgreSQL, COPY, File Formats). */
final readonly class CopyText
{
    private const ESCAPED = ['\\' => '\\\\', "\t" => '\t', "\n" => '\n', "\r" => '\r'];

    /** @param list<string|int|null> $fields */
    public static function line(array $fields): string
    {
        // Looked for in all of them at once: most lines have nothing that has to be escaped.
        $escapes = strpbrk(implode('', $fields), "\\\t\n\r") !== false;
        foreach ($fields as $nth => $field) {
            if ($field === null) {
                $fields[$nth] = '\N';
            } elseif ($escapes && is_string($field)) {
                $fields[$nth] = strtr($field, self::ESCAPED);
            }
        }

        return implode("\t", $fields)."\n";
    }

    public static function field(string $text): string
    {
        // Looked for first: nearly no field has one.
        return strcspn($text, "\\\t\n\r") === strlen($text) ? $text : strtr($text, self::ESCAPED);
    }

    /**
     * Within the transaction of the connection, if it has one.
     *
     * @param  list<string>  $lines
     * @param  string  $columns  their names, with commas
     */
    public static function into(Connection $database, string $table, string $columns, array $lines): void
    {
        if ($lines !== []) {
            $database->getPdo()->pgsqlCopyFromArray($table, $lines, "\t", '\\\\N', $columns);
        }
    }

    public static function bytes(string $bytes): string
    {
        return self::hexadecimal(bin2hex($bytes));
    }

    public static function hexadecimal(string $digits): string
    {
        return '\x'.$digits;
    }

    /** @param list<string|int> $elements without quotes or commas */
    public static function list(array $elements): string
    {
        return '{'.implode(',', $elements).'}';
    }
}
