<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/** The number under which a database knows a connection, so that another one can end what it does. */
final readonly class Session
{
    public static function of(\PDO $database, SourceKind $kind): string
    {
        $found = $kind === SourceKind::Mysql ? $database->query('SELECT connection_id()') : false;
        $number = $found === false ? '' : $found->fetchColumn();
        // Another statement can run when this one is read to its end.
        $found === false || $found->closeCursor();

        return is_scalar($number) ? (string) $number : '';
    }
}
