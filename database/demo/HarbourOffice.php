<?php

declare(strict_types=1);

namespace Database\Demo;

/** A small second database, as a file, in which the harbour office keeps inspections: a stand-in that deliveries are drawn from. */
final readonly class HarbourOffice
{
    public const NAME = 'Harbour office';

    public const FILE = 'harbour-office.sqlite';

    public static function write(string $folder): void
    {
        $path = "{$folder}/".self::FILE;
        if (is_file($path)) {
            return;
        }
        is_dir($folder) || mkdir($folder, 0755, true);
        $rows = Inspections::target();
        $columns = $rows->columns;
        $database = new \PDO("sqlite:{$path}.new", options: [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION]);
        $database->exec('CREATE TABLE inspections ('.implode(' TEXT, ', $columns).' TEXT)');
        $insert = $database->prepare('INSERT INTO inspections VALUES ('.implode(', ', array_fill(0, count($columns), '?')).')');
        $database->beginTransaction();
        foreach ($rows->cells as $row) {
            $insert->execute($row);
        }
        $database->commit();
        rename("{$path}.new", $path);
    }
}
