<?php

declare(strict_types=1);

namespace Database\Demo;

/**
 * Wherrymoor Navigation, an invented trust that runs moorings on inland waterways and moves its registers to a new system.
 * All names and figures are made up.
 */
final readonly class Wherrymoor
{
    public const SEED = 20261125;

    public const BASINS = ['KB', 'LM', 'NQ', 'OT', 'PW', 'RS', 'TH', 'UV'];

    private const FIRST_NAMES = [
        'Ezekiel', 'Ottoline', 'Bríd', 'Søren', 'Maëlle', 'Jörg', 'Aurelio', 'Wanda', 'Nnedi', 'Ilse', 'Tomasz', 'Hester',
    ];

    private const LAST_NAMES = [
        'Thornøy',
        "O'Marrow",
        'Pennywhistle', 'Ashcombe-Lane', 'Lindqvist', 'Van der Moor', 'Quillfeather', 'Dàvies', 'Fenwright', 'Saltmarsh', 'Zabłocki',
        'Underbridge',
    ];

    public const BOATS = [
        'Second Breakfast',
        'Slow Heron',
        'Marguerite',
        'Kingfisher II',
        'Très Lente',
        'Old Ned',
        'Wide Awake',
        'Periwinkle',
    ];

    /** @return list<DemoDataset> */
    public static function datasets(): array
    {
        return [Moorings::dataset(), Licences::dataset(), Vessels::dataset()];
    }

    /** The same rows each time. */
    public static function generator(DemoDataset $dataset): Generator
    {
        return new Generator($dataset, self::SEED + (int) array_search($dataset->name, array_column(self::datasets(), 'name'), true));
    }

    /** @return list<DrawnFrom> */
    public static function drawn(): array
    {
        return [Inspections::drawn(), Licences::drawn()];
    }

    public static function holder(int $number): string
    {
        return self::FIRST_NAMES[$number % 12].' '.self::LAST_NAMES[intdiv($number, 12) % 12];
    }
}
