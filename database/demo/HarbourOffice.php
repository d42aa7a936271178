<?php

declare(strict_types=1);

namespace Database\Demo;

/** A small second database, as a file, in which the harbour office keeps inspections: a stand-in that deliveries are drawn from. */
final readonly class HarbourOffice
{
    public const NAME = 'Harbour office';

    public const FILE = 'harbour-office.sqlite';

    /** @param string $inspections path of a table of them */
    public static function write(string $folder, string $inspections): void
    {
        $path = "{$folder}/".self::FILE;
        $file = fopen($inspections, 'rb');
        if ($file === false || is_file($path)) {
            return;
        }
        is_dir($folder) || mkdir($folder, 0755, true);
        $names = array_map(strval(...), fgetcsv($file, null, ',', '"', '') ?: []);
        $quoted = array_map(static fn(string $name): string => '"'.str_replace('"', '""', $name).'"', $names);
        $database = new \PDO("sqlite:{$path}.new", options: [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION]);
        $database->exec('CREATE TABLE inspections ('.implode(' TEXT, ', $quoted).' TEXT)');
        $insert = $database->prepare('INSERT INTO inspections VALUES ('.implode(', ', array_fill(0, count($names), '?')).')');
        $database->beginTransaction();
        while (is_array($row = fgetcsv($file, null, ',', '"', ''))) {
            $insert->execute(array_slice(array_pad($row, count($names), ''), 0, count($names)));
        }
        $database->commit();
        fclose($file);
        rename("{$path}.new", $path);
    }
}
