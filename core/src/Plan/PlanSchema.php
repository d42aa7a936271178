<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use Opis\JsonSchema\Errors\ValidationError;
use Opis\JsonSchema\Schema;
use Opis\JsonSchema\Validator;

/** The schema that plans follow, read once in a process: to read it takes longer than to hold a plan against it. */
final class PlanSchema
{
    /** What a person can take in at once. */
    private const MOST_ERRORS = 20;

    private static ?Validator $validator = null;

    private static ?Schema $schema = null;

    /** @param mixed $document as JSON objects; null where it follows the schema */
    public static function errorOf(mixed $document): ?ValidationError
    {
        self::$validator ??= (new Validator)->setMaxErrors(self::MOST_ERRORS);
        if (self::$schema === null) {
            /** @var object $written */
            $written = json_decode((string) file_get_contents(__DIR__.'/plan.schema.json'), false, 512, JSON_THROW_ON_ERROR);
            self::$schema = self::$validator->loader()->loadObjectSchema($written);
        }

        return self::$validator->schemaValidation($document, self::$schema);
    }
}
