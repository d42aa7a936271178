<?php

declare(strict_types=1);

use App\Http\Middleware\CsrfToken;
use App\Http\Middleware\SecurityHeaders;
use App\Http\Middleware\SessionGoesOn;
use App\Http\Middleware\SessionOfPage;
use App\Http\Problems\ProblemDetails;
use App\Logging\ReducedException;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Foundation\Http\Middleware\ValidateCsrfToken;
use Illuminate\Http\Middleware\HandleCors;
use Illuminate\Http\Request;
use Illuminate\Session\Middleware\StartSession;
use Illuminate\View\Middleware\ShareErrorsFromSession;

$application = Application::configure(basePath: dirname(__DIR__))
    ->withRouting(web: __DIR__.'/../routes/web.php', commands: __DIR__.'/../routes/console.php')
    ->withMiddleware(function (Middleware $middleware): void {
        $middleware->trustHosts(
            at: static fn(): array => array_values([
                '^127\.0\.0\.1$',
                '^localhost$',
                '^\[::1\]$',
                ...array_filter(config()->array('nine-tally.hosts'), is_string(...)),
            ]),
            subdomains: false,
        );
        // Nobody else is meant to call the API from a page.
        $middleware->remove(HandleCors::class);
        $middleware->append(SecurityHeaders::class);
        $middleware->web(append: [SessionGoesOn::class]);
        $middleware->web(
            remove: ShareErrorsFromSession::class,
            replace: [ValidateCsrfToken::class => CsrfToken::class, StartSession::class => SessionOfPage::class],
        );
        $middleware->redirectGuestsTo(static fn(): ?string => null);
        // Cell values, reasons and passwords keep their white space; an empty reason is an empty reason.
        $middleware->trimStrings(except: [static fn(): bool => true]);
        $middleware->convertEmptyStringsToNull(except: [static fn(): bool => true]);
    })
    ->withExceptions(function (Exceptions $exceptions): void {
        // An exception of the database carries values of cells; a log may hold ids, counts and codes only.
        $exceptions->report(static function (Throwable $exception): false {
            logger()->error('exception', ReducedException::of($exception));

            return false;
        });
        $exceptions->render(
            static fn(Throwable $exception, Request $request) => $request->is('api/*') ? ProblemDetails::response($exception) : null,
        );
    })
    ->create();

// One clone can serve and be tested at the same time: each instance has a home of its own for data, settings and logs.
$home = getenv('NINE_TALLY_HOME');
$home = is_string($home) && $home !== '' ? $home : dirname(__DIR__).'/var/start';
$application->useEnvironmentPath($home.'/app');
$application->useStoragePath($home.'/app/storage');

return $application;
