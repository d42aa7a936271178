<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\UnusablePlan;

/** A plan in a file. */
final readonly class PlanFile
{
    /**
     * @throws UnreadableFile when the file cannot be read
     * @throws UnusablePlan with every problem and its place
     */
    public static function read(string $path): Plan
    {
        $json = is_dir($path) ? throw UnreadableFile::isFolder($path) : @file_get_contents($path);

        return $json === false ? throw UnreadableFile::cannotBeOpened($path) : Plan::fromJson($json);
    }
}
