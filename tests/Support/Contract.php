<?php

declare(strict_types=1);

namespace Tests\Support;

use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Assert;
use Symfony\Component\Yaml\Yaml;

/** The OpenAPI document as the one contract: an answer that it does not describe is a failure. */
final readonly class Contract
{
    private const ID = 'https://nine-tally.example/openapi.json';

    /** @param array<string, array<string, mixed>> $paths */
    private function __construct(private Validator $validator, private array $paths) {}

    /** Read once per process: reading it takes longer than most requests. */
    public static function load(): self
    {
        /** @var self|null $loaded */
        static $loaded = null;

        return $loaded ??= self::read();
    }

    private static function read(): self
    {
        $file = dirname(__DIR__, 2).'/docs/api/openapi.yaml';
        /** @var array{paths: array<string, array<string, mixed>>} $document */
        $document = Yaml::parseFile($file);
        $schema = Yaml::parseFile($file, Yaml::PARSE_OBJECT_FOR_MAP);
        Assert::assertIsObject($schema);
        $validator = new Validator;
        $validator->resolver()?->registerRaw((object) ['$id' => self::ID, 'components' => $schema->components ?? null], self::ID);

        return new self($validator, $document['paths']);
    }

    public function mustAllow(string $method, string $path, int $status, string $content, string $contentType): void
    {
        $path = explode('?', $path)[0];
        $operation = $this->operation($method, $path) ?? Assert::fail("The contract knows no {$method} {$path}.");
        $responses = $operation['responses'] ?? [];
        Assert::assertIsArray($responses);
        if ($status < 400) {
            Assert::assertArrayHasKey($status, $responses, "{$method} {$path} answered {$status}: ".substr($content, 0, 300));
        }
        $schema =
            $status >= 400
                ? '#/components/schemas/Problem'
                : data_get($responses, [$status, 'content', 'application/json', 'schema', '$ref']);
        if ($status >= 400) {
            Assert::assertSame('application/problem+json', $contentType);
        }
        if (is_string($schema)) {
            $result = $this->validator->validate(
                json_decode($content, false, 64, JSON_THROW_ON_ERROR),
                (object) ['$ref' => self::ID.$schema],
            );
            $error = $result->error();
            Assert::assertNull(
                $error,
                "{$method} {$path} does not keep the contract: ".
                    ($error === null ? '' : json_encode((new ErrorFormatter)->format($error))),
            );
        }
    }

    /** @return array<mixed>|null */
    private function operation(string $method, string $path): ?array
    {
        foreach ($this->paths as $template => $operations) {
            if (preg_match('#^'.preg_replace('/\\\\\{\w+\\\\\}/', '[^/]+', preg_quote($template, '#')).'$#', $path) === 1) {
                $operation = $operations[strtolower($method)] ?? null;

                return is_array($operation) ? $operation : null;
            }
        }

        return null;
    }
}
