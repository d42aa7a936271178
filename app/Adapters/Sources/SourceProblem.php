<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use NineTally\Core\Intake\UnreadableFile;

/** Why a source could not be entered or read, in a sentence that names what has to be put right: name, port, certificate, right. */
final class SourceProblem extends \RuntimeException
{
    public static function of(\PDOException $problem, SourceAddress $address): self
    {
        $said = $problem->getMessage();
        $place = $address->port === 0 ? $address->database : "{$address->host}, port {$address->port}";
        $is = static fn(string $pattern): bool => preg_match("/{$pattern}/i", $said) === 1;

        return new self(
            match (true) {
                $is('could not translate host name|getaddrinfo|unknown host|name or service not known|temporary failure in name')
                    => "There is no computer called {$address->host}, or its name cannot be found from here. Check the name.",
                $is('certificate verify failed|certificate|peer certificate|root certificate')
                    => "The certificate of {$place} is not of the authority that was named. Check both.",
                // MySQL does not say which of both it is.
                $address->encryption->mode === 'verified' && $address->kind === SourceKind::Mysql && $is('\bssl\b')
                    => "The certificate of {$place} is not of the authority that was named, or it offers no encrypted way in. Check both.",
                $is('\bssl\b|\btls\b') || ($address->encryption->mode !== 'preferred' && $is('gone away'))
                    => "{$place} does not offer an encrypted way in. Ask whoever runs the database, or do without encryption.",
                $is('connection refused|can.t connect|no such file or directory')
                    => "Nobody answers at {$place}. Check the port, and whether the database runs and lets this computer in.",
                $is('timeout expired|timed out|no route to host|network is unreachable')
                    => "{$place} does not answer. Check name and port, and whether a firewall stands between.",
                $is('password authentication failed|access denied for user .*using password|no password supplied|authentication failed')
                    => 'The database refuses this user with this password. Check both.',
                $is('no pg_hba.conf entry|is not allowed to connect')
                    => "The database does not let {$address->user} in from this computer. Ask whoever runs it.",
                $is('database ".*" does not exist|unknown database|access denied for user .* to database')
                    => "There is no database called {$address->database}, or this user may not enter it. Check the name.",
                $is('unable to open database file|not a database|file is encrypted')
                    => "There is no SQLite database at {$address->database}, or the account that serves may not read it.",
                $is('permission denied|command denied|not authorized') => 'This user may not read it: '.
                    self::plain($said).
                    '. Ask for the right to read.',
                default => ucfirst(self::plain($said)).'.',
            },
        );
    }

    /** What it says of the query that was to be drawn from the source of this name. */
    public function asUnreadable(string $source): UnreadableFile
    {
        return UnreadableFile::queryFails($source, lcfirst(rtrim($this->getMessage(), '.')));
    }

    /** What the database says, without the code before it and the statement behind it. */
    public static function plain(string $said): string
    {
        $text = preg_replace(['/^SQLSTATE\[\w+\](?: \[\d+\])?:?\s*(?:[^:]*: \d+ )?/', '/\s*LINE \d+:.*$/s'], '', $said) ?? '';

        return rtrim(lcfirst(preg_replace('/^(?:ERROR|FATAL):\s*/', '', trim($text)) ?? ''), '.');
    }
}
