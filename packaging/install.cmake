# What goes where, and the Debian package that cpack makes of it.
include(GNUInstallDirs)
set(UQ_DOC_DIR ${CMAKE_INSTALL_DATADIR}/doc/urban-quilt)
set(UQ_APP_ID org.urbanquilt.UrbanQuilt)
install(TARGETS urban-quilt uquilt RUNTIME DESTINATION ${CMAKE_INSTALL_BINDIR})
install(DIRECTORY demo/copperline DESTINATION ${CMAKE_INSTALL_DATADIR}/urban-quilt/demo
        PATTERN .urban-quilt EXCLUDE)
install(FILES packaging/desktop/${UQ_APP_ID}.desktop DESTINATION ${CMAKE_INSTALL_DATADIR}/applications)
install(FILES packaging/desktop/${UQ_APP_ID}.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/mime/packages)
install(FILES packaging/desktop/${UQ_APP_ID}.metainfo.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/metainfo)
install(FILES src/app/icons/urban-quilt.svg RENAME ${UQ_APP_ID}.svg
        DESTINATION ${CMAKE_INSTALL_DATADIR}/icons/hicolor/scalable/apps)
install(FILES docs/format.md docs/format.schema.json docs/links.md docs/links.schema.json docs/edgings.md docs/edgings.schema.json DESTINATION ${UQ_DOC_DIR})
install(FILES LICENSE DESTINATION ${UQ_DOC_DIR} RENAME copyright)

find_program(GZIP gzip REQUIRED)
# Compresses a file for the package as Debian wants it: best, and the same bytes every time.
function(uq_install_gzipped file destination name)
  set(packed ${CMAKE_CURRENT_BINARY_DIR}/packed/${name}.gz)
  add_custom_command(OUTPUT ${packed} DEPENDS ${file} VERBATIM
                     COMMAND ${CMAKE_COMMAND} -E make_directory ${CMAKE_CURRENT_BINARY_DIR}/packed
                     COMMAND sh -c "${GZIP} -9nc '${file}' > '${packed}'")
  set_property(GLOBAL APPEND PROPERTY UQ_PACKED ${packed})
  install(FILES ${packed} DESTINATION ${destination})
endfunction()
uq_install_gzipped(${CMAKE_SOURCE_DIR}/docs/man/urban-quilt.1 ${CMAKE_INSTALL_MANDIR}/man1 urban-quilt.1)
uq_install_gzipped(${CMAKE_SOURCE_DIR}/docs/man/uquilt.1 ${CMAKE_INSTALL_MANDIR}/man1 uquilt.1)
uq_install_gzipped(${CMAKE_SOURCE_DIR}/packaging/changelog ${UQ_DOC_DIR} changelog)
get_property(UQ_PACKED GLOBAL PROPERTY UQ_PACKED)
add_custom_target(packed-texts ALL DEPENDS ${UQ_PACKED})

set(CPACK_GENERATOR DEB)
set(CPACK_PACKAGE_NAME urban-quilt)
set(CPACK_PACKAGE_CONTACT "The Urban Quilt authors <urban-quilt@example.org>")
set(CPACK_PACKAGING_INSTALL_PREFIX /usr)
set(CPACK_STRIP_FILES ON)
set(CPACK_PACKAGE_DESCRIPTION_SUMMARY "paint layered tile maps and sew them together")
set(CPACK_DEBIAN_PACKAGE_DESCRIPTION
    "A workroom for level designers, who paint layered tile maps with brushes,
selections and copies, see before every press where the stroke will land,
and keep each world in one folder of text and pictures.

The package holds the workroom, urban-quilt, and uquilt, which renders and
checks the same maps without a window.")
set(CPACK_DEBIAN_PACKAGE_SECTION graphics)
set(CPACK_DEBIAN_PACKAGE_PRIORITY optional)
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS ON)
# Plug-ins are loaded while running, so no library names them: pictures as WebP, icons as SVG.
set(CPACK_DEBIAN_PACKAGE_DEPENDS "qt6-image-formats-plugins, libqt6svg6")
set(CPACK_DEBIAN_FILE_NAME DEB-DEFAULT)
include(CPack)
