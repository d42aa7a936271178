<?php

declare(strict_types=1);

namespace App\Http\Problems;

use App\Adapters\Sources\SourceProblem;
use App\Problems\Conflict;
use App\Problems\ContentPurged;
use App\Problems\DraftChanged;
use App\Problems\NoRoom;
use App\Problems\SecondFactorNeeded;
use App\Problems\ValuesAreMasked;
use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\JsonResponse;
use Illuminate\Session\TokenMismatchException;
use Illuminate\Validation\ValidationException;
use NineTally\Core\NineTallyException;
use NineTally\Core\Plan\Problem;
use NineTally\Core\Plan\UnusablePlan;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;

/** Errors as application/problem+json (RFC 9457). A detail says what happened, where and what to do; never a trace. */
final readonly class ProblemDetails
{
    public static function response(\Throwable $exception): JsonResponse
    {
        [$status, $code, $title, $detail, $errors] = self::facts($exception);

        return new JsonResponse(
            [
                'type' => "urn:nine-tally:problem:{$code}",
                'title' => $title,
                'status' => $status,
                'detail' => $detail,
                'code' => $code,
                'errors' => $errors,
            ],
            $status,
            [
                'Content-Type' => 'application/problem+json',
                ...$exception instanceof HttpExceptionInterface ? $exception->getHeaders() : [],
                ...$status === 503 ? ['Retry-After' => '3'] : [],
            ],
            JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
        );
    }

    /** @return array{int, string, string, string, list<array{pointer: string, detail: string}>} */
    private static function facts(\Throwable $exception): array
    {
        return match (true) {
            $exception instanceof ValidationException => [
                422,
                'invalid-input',
                'Some input cannot be used',
                implode(' ', $exception->validator->errors()->all()),
                self::validationErrors($exception),
            ],
            $exception instanceof UnusablePlan => [
                422,
                $exception->code(),
                'The plan cannot be used',
                $exception->getMessage(),
                array_map(
                    static fn(Problem $problem): array => ['pointer' => $problem->pointer, 'detail' => $problem->message],
                    $exception->problems,
                ),
            ],
            $exception instanceof Conflict => [409, $exception->reason, 'Something else happened meanwhile', $exception->getMessage(), []],
            $exception instanceof DraftChanged => [
                412,
                'draft-changed',
                'Somebody else changed the plan meanwhile',
                $exception->getMessage(),
                [],
            ],
            $exception instanceof ContentPurged => [410, $exception->code(), 'The content was purged', $exception->getMessage(), []],
            $exception instanceof NineTallyException => [422, $exception->code(), 'This cannot be used', $exception->getMessage(), []],
            $exception instanceof AuthenticationException => [401, 'not-signed-in', 'You are not signed in', 'Sign in and try again.', []],
            $exception instanceof ValuesAreMasked => [403, 'masked', 'Values are masked for you', $exception->getMessage(), []],
            $exception instanceof AuthorizationException => [
                403,
                'not-allowed',
                'You may not do this',
                $exception->getMessage() === (new AuthorizationException)->getMessage()
                    ? 'Your role in this migration does not allow it. Ask the analyst who runs the migration.'
                    : $exception->getMessage(),
                [],
            ],
            $exception instanceof ModelNotFoundException => [
                404,
                'not-found',
                'There is nothing here',
                'It may have been removed, or the address is wrong. Go back to the board.',
                [],
            ],
            $exception instanceof TokenMismatchException => [
                419,
                'page-expired',
                'The page is too old',
                'Reload the page and try again; nothing was changed.',
                [],
            ],
            $exception instanceof SecondFactorNeeded => [422, 'second-factor', 'One thing more', $exception->getMessage(), []],
            $exception instanceof SourceProblem => [422, 'source', 'The database cannot be read', $exception->getMessage(), []],
            $exception instanceof NoRoom => [507, 'no-room', 'The disk is full', $exception->getMessage(), []],
            DatabaseGone::isFull($exception) => [507, 'no-room', 'The disk is full', NoRoom::writing()->getMessage(), []],
            DatabaseGone::is($exception) => [
                503,
                'database-gone',
                'The database does not answer',
                'Nothing was changed. It is asked again in a moment; if that does not help, tell whoever runs Nine Tally.',
                [],
            ],
            $exception instanceof HttpExceptionInterface => self::http($exception),
            default => [
                500,
                'unexpected',
                'Something went wrong here',
                'The server met a problem that it did not expect. Nothing was changed; try again, and tell whoever runs Nine Tally when '.
                    'it happens again.',
                [],
            ],
        };
    }

    /** @return array{int, string, string, string, list<array{pointer: string, detail: string}>} */
    private static function http(HttpExceptionInterface $exception): array
    {
        return match ($exception->getStatusCode()) {
            403 => [
                403,
                'not-allowed',
                'You may not do this',
                'Your role in this migration does not allow it. Ask the analyst who runs the migration.',
                [],
            ],
            404 => [
                404,
                'not-found',
                'There is nothing here',
                'It may have been removed, or the address is wrong. Go back to the board.',
                [],
            ],
            405 => [405, 'not-possible', 'This is not possible here', 'The address does not answer to this.', []],
            419 => [419, 'page-expired', 'The page is too old', 'Reload the page and try again; nothing was changed.', []],
            410 => [410, 'no-longer-kept', 'This is no longer kept', $exception->getMessage(), []],
            429 => [429, 'too-many-tries', 'Too many tries', $exception->getMessage() ?: 'Wait a minute, then try again.', []],
            default => [$exception->getStatusCode(), 'refused', 'This was refused', 'Reload the page and try again.', []],
        };
    }

    /** @return list<array{pointer: string, detail: string}> */
    private static function validationErrors(ValidationException $exception): array
    {
        $errors = [];
        /** @var array<string, list<string>> $messages */
        $messages = $exception->errors();
        foreach ($messages as $field => $details) {
            foreach ($details as $detail) {
                $errors[] = ['pointer' => '/'.str_replace('.', '/', $field), 'detail' => $detail];
            }
        }

        return $errors;
    }
}
